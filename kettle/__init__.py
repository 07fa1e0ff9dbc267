"""The core of Orange Kettle: rules and computation on plain data, without Django and without I/O."""

__version__ = "0.1.0"
