"""How much stock stands in a box, in the words it is asked by."""

from typing import Final

STOCK: Final = {"little": "little", "half": "half full", "full": "full"}
