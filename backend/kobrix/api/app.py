"""The application: routes, guard and errors, and the built front end."""

from pathlib import Path

from fastapi import FastAPI

from kobrix import __version__
from kobrix.api import backups, devices, errors, events, jobs, lend, lock, often_asked, pages, records
from kobrix.api.guard import Guard
from kobrix.api.pairing import Pairing
from kobrix.stages.registry import STAGES


def create_app(database: Path, front_end: Path | None = None, pairing: Pairing | None = None) -> FastAPI:
    """The server over a prepared `database`, serving the built `front_end` folder when there is one.

    `pairing` lets devices in through one address besides the loopback.
    """
    app = FastAPI(title="Kobrix", version=__version__, docs_url=None, redoc_url=None, openapi_url=None)
    app.state.database, app.state.pairing = database, pairing
    app.state.watches = {}
    app.state.lock = lock.Lock(database) if database.exists() else None
    app.add_middleware(Guard)
    errors.install(app)
    for router in (
        events.router,
        jobs.router,
        records.router,
        often_asked.router,
        lend.router,
        devices.router,
        backups.router,
        *(stage.router for stage in STAGES),
    ):
        app.include_router(router)
    app.router.routes.extend(lock.ROUTES)
    if pairing is not None:
        app.include_router(devices.door)

    if front_end is not None:
        app.router.routes.extend(pages.routes(front_end))
    return app
