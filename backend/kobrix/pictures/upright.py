"""A photograph decoded, turned upright and written anew: no metadata (the place where it was taken among it) outlives this."""

import io

from PIL import Image, ImageOps, UnidentifiedImageError

from kobrix.core.errors import BadEntry

MOST_PIXELS = 60_000_000  # looked at in the head, before anything is decoded
LONGEST, SMALL, QUALITY = 2400, 320, 85  # pixels of the longer side as kept and as a thumbnail
KINDS = ("JPEG", "PNG", "WEBP")
Image.MAX_IMAGE_PIXELS = None  # the limit is ours, told in words


def _opened(content: bytes) -> Image.Image:
    try:
        picture = Image.open(io.BytesIO(content), formats=KINDS)
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError):
        raise BadEntry("photograph", "another kind of file", "a JPEG, PNG or WebP picture") from None
    wide, high = picture.size
    if wide * high > MOST_PIXELS:
        raise BadEntry("photograph", f"{wide:,} by {high:,} pixels", f"up to {MOST_PIXELS:,} in all", "send a smaller one")
    return picture


def _written(picture: Image.Image, longest: int) -> bytes:
    picture.thumbnail((longest, longest))
    if picture.mode not in ("RGB", "L"):
        ground = Image.new("RGB", picture.size, "white")
        with_alpha = picture.convert("RGBA")
        ground.paste(with_alpha, mask=with_alpha.getchannel("A"))
        picture = ground
    out = io.BytesIO()
    # A picture of nothing but its pixels: what is not asked for here is not written.
    Image.frombytes(picture.mode, picture.size, picture.tobytes()).save(out, "JPEG", quality=QUALITY, optimize=True)
    return out.getvalue()


def cleaned(content: bytes, longest: int = LONGEST) -> bytes:
    """The photograph as a JPEG of pixels alone, upright, its longer side at most `longest` [px]. Raises BadEntry in words."""
    picture = _opened(content)
    try:
        picture.load()
        return _written(ImageOps.exif_transpose(picture), longest)
    except (OSError, ValueError, SyntaxError, EOFError, MemoryError):
        raise BadEntry("photograph", "a picture that ends early or is damaged", "a whole one", "take or send it again") from None


def thumbnail(content: bytes) -> bytes:
    """A small one of a kept photograph. Raises BadEntry where it cannot be read."""
    return cleaned(content, SMALL)
