"""Photographs as they are kept: upright, small enough, nothing beside the pixels; what is no picture is refused in words."""

import io
import random
import struct
import unittest
import warnings
import zlib

from kobrix.core.errors import BadEntry
from kobrix.pictures.upright import LONGEST, SMALL, cleaned, thumbnail
from PIL import Image


def photo(wide: int = 64, high: int = 32, kind: str = "JPEG", turn: int | None = None, mode: str = "RGB") -> bytes:
    """A picture whose left half is dark; `turn`: how the camera was held (EXIF 0x0112), with a place written beside it."""
    picture = Image.new(mode, (wide, high), "white")
    picture.paste(Image.new(mode, (wide // 2, high), "black"), (0, 0))
    out, exif = io.BytesIO(), Image.Exif()
    if turn is not None:
        exif[0x0112] = turn
    exif[0x010F] = "a maker of cameras"
    exif[0x8825] = {1: "N", 2: (47.0, 22.0, 1.0)}
    picture.save(out, kind, **({"exif": exif} if kind != "PNG" or turn else {}))
    return out.getvalue()


def bomb(wide: int, high: int) -> bytes:
    """The head of a PNG that says it is huge."""
    head = struct.pack(">IIBBBBB", wide, high, 8, 2, 0, 0, 0)
    return (
        b"\x89PNG\r\n\x1a\n"
        + struct.pack(">I", 13)
        + b"IHDR"
        + head
        + struct.pack(">I", zlib.crc32(b"IHDR" + head))
        + struct.pack(">I", 4)
        + b"IDAT"
        + b"\0" * 8
    )


class Kept(unittest.TestCase):
    def test_nothing_but_pixels_is_kept(self) -> None:
        for kind in ("JPEG", "PNG", "WEBP"):
            content = photo(kind=kind, turn=1)
            self.assertIn(b"maker of cameras", content)
            kept = cleaned(content)
            self.assertNotIn(b"maker of cameras", kept)
            self.assertNotIn(b"Exif", kept)
            with Image.open(io.BytesIO(kept)) as picture:
                self.assertEqual((picture.format, picture.size, dict(picture.getexif())), ("JPEG", (64, 32), {}))

    def test_it_stands_upright_however_the_camera_was_held(self) -> None:
        # By EXIF 2.3: where the dark left half of the sensor's picture is once it is upright.
        for turn, size, dark in ((1, (64, 32), "left"), (3, (64, 32), "right"), (6, (32, 64), "top"), (8, (32, 64), "bottom")):
            with Image.open(io.BytesIO(cleaned(photo(turn=turn)))) as picture:
                self.assertEqual(picture.size, size)
                wide, high = size
                at = {
                    "left": (2, high // 2),
                    "right": (wide - 3, high // 2),
                    "top": (wide // 2, 2),
                    "bottom": (wide // 2, high - 3),
                }[dark]
                pixel = picture.convert("L").getpixel(at)
                assert isinstance(pixel, int)
                self.assertLess(pixel, 60, turn)

    def test_a_large_one_is_made_smaller_and_a_small_one_stays(self) -> None:
        with Image.open(io.BytesIO(cleaned(photo(5000, 1000)))) as picture:
            self.assertEqual(picture.size, (LONGEST, LONGEST // 5))
        with Image.open(io.BytesIO(thumbnail(photo(5000, 1000)))) as picture:
            self.assertEqual(picture.size, (SMALL, SMALL // 5))
        with Image.open(io.BytesIO(cleaned(photo(10, 10)))) as picture:
            self.assertEqual(picture.size, (10, 10))

    def test_what_is_see_through_stands_on_white(self) -> None:
        out = io.BytesIO()
        Image.new("RGBA", (8, 8), (0, 0, 0, 0)).save(out, "PNG")
        with Image.open(io.BytesIO(cleaned(out.getvalue()))) as picture:
            self.assertEqual(picture.convert("L").getpixel((4, 4)), 255)

    def test_bombs_and_what_is_no_picture_are_refused_in_words(self) -> None:
        with self.assertRaisesRegex(BadEntry, "100,000 by 100,000 pixels"):
            cleaned(bomb(100_000, 100_000))
        whole = photo(400, 300)
        for content in (
            b"",
            b"<html>",
            b"GIF89a" + b"\0" * 50,
            whole[: len(whole) // 2],
            b"\x89PNG\r\n\x1a\n" + b"\0" * 40,
            bomb(10, 10),
        ):
            with self.assertRaises(BadEntry):
                cleaned(content)
        draw = random.Random(1)
        for _ in range(1500):  # one wrong byte after the other: a picture or a sentence
            broken = bytearray(whole)
            for _ in range(draw.randrange(1, 30)):
                broken[draw.randrange(len(broken))] = draw.randrange(256)
            with warnings.catch_warnings():
                warnings.simplefilter("ignore")  # the library's own, of damaged heads
                try:
                    cleaned(bytes(broken))
                except BadEntry:
                    continue


if __name__ == "__main__":
    unittest.main()
