"""The screens of a call: each module shows a stop, or stores one thing and answers with what changed."""
