"""What the pages at the door share: how their form is sent, and the cookie of who was let in."""

from starlette.responses import RedirectResponse, Response

from kobrix.api.pairing import COOKIE

A_MONTH = 30 * 24 * 3600  # s
# A form's page says where it is from to its own server: without that a browser sends its answer as from nowhere ("Origin: null", Fetch
# standard), and the guard refuses it.
FORM = {
    "Content-Security-Policy": "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'; base-uri 'none'; frame-ancestors 'none'",
    "Referrer-Policy": "same-origin",
    "Cache-Control": "no-store",
}


def let_in(token: str) -> Response:
    """To the first page, known by a cookie from now on."""
    response = RedirectResponse("/", status_code=303)
    response.set_cookie(COOKIE, token, httponly=True, samesite="strict", max_age=A_MONTH, path="/")
    return response
