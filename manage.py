"""Django's command line for Orange Kettle."""

import os
import sys

from django.core.management import execute_from_command_line

if __name__ == "__main__":
    # What it writes is the installation's own: nobody else on the machine reads it.
    os.umask(0o077)
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "web.settings")
    execute_from_command_line(sys.argv)
