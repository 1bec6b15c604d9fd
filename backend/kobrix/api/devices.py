"""Devices of the network: the page that pairs one, and the list of those that are let in."""

from asyncio import to_thread
from html import escape
from urllib.parse import parse_qs

import segno
from fastapi import APIRouter, Request
from fastapi.responses import HTMLResponse, Response
from typing_extensions import TypedDict

from kobrix.api.pairing import COOKIE, LASTS_S, Pairing, digest_of
from kobrix.api.problems import problem
from kobrix.api.threshold import FORM, let_in
from kobrix.core.errors import BadEntry
from kobrix.stages.common import ERRORS, Database, Route, as_json
from kobrix.store import devices
from kobrix.store.connection import open_db

router = APIRouter(route_class=Route, prefix="/api", tags=["devices"], responses=ERRORS)
_WHY = {
    "wrong": "This code is wrong or was used before. Open the newest link that was printed.",
    "expired": "This code is older than ten minutes. A new one was printed: open that.",
    "wait": "Too many wrong codes came from this device: wait a little, then open the newest link.",
}
_PAGE = """<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Kobrix: let this device in</title>
<body style="font: 18px/1.5 sans-serif; max-width: 30em; margin: 2em auto; padding: 0 1em"><main><h1 style="font-size: 1.3em">Let this device in?</h1>
<p>It then sees and changes every job on this machine, until it is taken off the list of devices there.</p>
<form method="post"><label>What is it called? <input name="name" maxlength="40" value="{name}" style="font: inherit; min-height: 44px"></label>
<p><button style="font: inherit; min-height: 44px; padding: 0 1em">Let it in</button></p></form></main></body></html>"""


class DeviceOut(TypedDict):
    """A device that is let in."""

    id: int
    name: str
    paired_at: str


class DevicesOut(TypedDict):
    """Devices that are let in; `link` pairs one more, with its `qr` as a picture's address, both null while the server answers this machine alone."""

    open: bool
    link: str | None
    qr: str | None
    minutes: float
    devices: list[DeviceOut]


def _pairing(request: Request) -> Pairing | None:
    found: Pairing | None = request.app.state.pairing
    return found


def _out(path: Database, pairing: Pairing | None, link: str | None) -> Response:
    with open_db(path) as db:
        rows: list[DeviceOut] = [{"id": d.id, "name": d.name, "paired_at": d.paired_at} for d in devices.every(db)]
    qr = None if link is None else segno.make(link, micro=False).svg_data_uri(scale=4, light="white")
    told: DevicesOut = {"open": pairing is not None, "link": link, "qr": qr, "minutes": LASTS_S / 60, "devices": rows}
    return as_json(told)


def who(request: Request, path: Database) -> str | None:
    """What the device that asks is called, or the machine itself; None while no devices are let in: then there is nobody else."""
    pairing = _pairing(request)
    if pairing is None:
        return None
    if not pairing.serves(request.scope):
        return "this machine"
    digest = digest_of(request.cookies.get(COOKIE, ""))
    with open_db(path) as db:
        return next((d.name for d in devices.every(db) if d.digest == digest), "another screen")


@router.get("/devices", response_model=DevicesOut)
def list_devices(request: Request, path: Database) -> Response:
    """The devices that are let in."""
    return _out(path, _pairing(request), None)


@router.post("/devices/link", response_model=DevicesOut)
def new_link(request: Request, path: Database) -> Response:
    """A new link that pairs one more device; the one before no longer works."""
    pairing = _pairing(request)
    if pairing is None:
        raise BadEntry("link", "a new one", "a server that was started with --lan", "now it answers this machine alone")
    return _out(path, pairing, pairing.renew())


@router.delete("/devices/{device_id}", response_model=DevicesOut)
def remove_device(device_id: int, request: Request, path: Database) -> Response:
    """Let a device in no more, from its next request on."""
    pairing = _pairing(request)
    with open_db(path) as db:
        gone = next((d for d in devices.every(db) if d.id == device_id), None)
        devices.remove(db, device_id)
    if gone is not None:
        for door_keeper in (pairing, request.app.state.lock):
            if door_keeper is not None:
                door_keeper.forget(gone.digest)
    return _out(path, pairing, None)


door = APIRouter(include_in_schema=False)


def _host(request: Request) -> str:
    return request.client.host if request.client is not None else "an unknown place"


@door.get("/pair/{code}")
def ask_to_pair(code: str, request: Request) -> Response:
    """Ask on the device itself: a link that is only looked at spends nothing."""
    pairing = _pairing(request)
    why = "wrong" if pairing is None else pairing.refusal(code, _host(request))
    if why is not None:
        return problem(403, "Not let in", _WHY[why])
    agent = request.headers.get("user-agent", "")
    name = next(
        (words for part, words in (("iPad", "tablet"), ("Tablet", "tablet"), ("Mobile", "phone")) if part in agent),
        "another screen",
    )
    return HTMLResponse(_PAGE.format(name=escape(name)), headers=FORM)


@door.post("/pair/{code}")
async def pair(code: str, request: Request) -> Response:
    """Let a device in that has the code and says so."""
    pairing = _pairing(request)
    typed = parse_qs((await request.body())[:2000].decode("utf-8", "replace")).get("name", [""])[0]
    name = " ".join(typed.split())[:40] or "another screen"
    token = "wrong" if pairing is None else await to_thread(pairing.pair, code, _host(request), name)
    if token in _WHY:
        return problem(403, "Not let in", _WHY[token])
    if request.app.state.lock is not None:
        request.app.state.lock.learn(digest_of(token))
    return let_in(token)
