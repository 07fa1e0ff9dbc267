"""Outside devices: the owner adds and removes them, whoever works at a unit says which it has."""

import re
from ipaddress import ip_address

from kettle.knowledge.errors import FieldErrors, InputError
from web.accounts.access import require_owner, require_same_shop
from web.logbook.actions import log
from web.logbook.actions.acting import action
from web.logbook.models import Device

LONGEST_NAME, LONGEST_HOST = 60, 100
LAST_PORT = 65535
# Labels of up to 63 letters between dots; one of figures only would be an address, and is a wrong one.
_NAME = re.compile(r"(?=.*[A-Za-z])[A-Za-z0-9]([A-Za-z0-9-]{0,61}[A-Za-z0-9])?(\.[A-Za-z0-9]([A-Za-z0-9-]{0,61}[A-Za-z0-9])?)*")


def check_address(text):
    """Return an address as host:port; InputError says what is wrong with it."""
    host, _, port = text.strip().rpartition(":")
    if len(host) > LONGEST_HOST or not is_host(host):
        raise InputError(f"Address: “{text[:40]}” is not host:port, as in 192.168.8.20:502")
    if not (port.isascii() and port.isdigit() and len(port) < 6 and 1 <= int(port) <= LAST_PORT):
        raise InputError(f"Address: port “{port[:10]}” is outside 1 to {LAST_PORT}")
    return f"{host}:{int(port)}"


def is_host(host):
    """Whether something is an IP address (one of version 6 in brackets or bare) or a name made of labels."""
    bare = host[1:-1] if host.startswith("[") and host.endswith("]") else host
    try:
        return ip_address(bare).version == 6 or bare == host
    except ValueError:
        return bare == host and bool(_NAME.fullmatch(host))


@action
def add_device(user, kind, name, address, simulated=False):
    """Add a device to the shop; FieldErrors names what is wrong."""
    shop, errors, name = require_owner(user), {}, name.strip()
    if kind not in dict(Device.KINDS):
        errors["kind"] = "Kind: choose one of the list"
    if not 1 <= len(name) <= LONGEST_NAME:
        errors["name"] = f"Name: 1 to {LONGEST_NAME} letters are needed"
    elif shop.devices.filter(name=name).exists():
        errors["name"] = f"Name: there is a device called “{name}” already"
    try:
        address = check_address(address)
    except InputError as error:
        errors["address"] = str(error)
    if errors:
        raise FieldErrors(errors)
    device = Device.objects.create(shop=shop, kind=kind, name=name, address=address, simulated=simulated)
    log.write(user, "add_device", shop=shop, device=device.pk, name=name, address=address, simulated=simulated)
    return device


@action
def remove_device(user, device):
    """Take a device out of the shop; units that had it have none."""
    require_owner(user)
    require_same_shop(user, device)
    log.write(user, "remove_device", shop=device.shop, device=device.pk, name=device.name)
    device.delete()


@action
def choose_device(user, unit, kind, device):
    """Say which device of the shop a unit has; None for none."""
    require_same_shop(user, unit)
    if kind not in dict(Device.KINDS):
        raise InputError("Device: choose probes or a controller")
    if device is not None:
        require_same_shop(user, device)
        if device.kind != kind:
            raise InputError(f"Device: {device.name} is no {dict(Device.KINDS)[kind]}")
    setattr(unit, kind, device)
    unit.save(update_fields=[kind])
    log.of_unit(user, "choose_device", unit, kind=kind, device=device.pk if device else None)


def devices_of(unit, kind):
    """The devices of a kind that a unit may be given."""
    return Device.objects.filter(shop=unit.shop_id, kind=kind)
