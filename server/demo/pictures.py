"""Pictures that stand for photos of the made-up workshop: drawn, not taken."""

import io
import random
from collections.abc import Callable

from PIL import Image, ImageDraw, ImageFilter

SIZE = (1200, 900)
STEEL, DARK, BENCH = (178, 186, 190), (70, 78, 84), (96, 74, 52)


def _shop(seed: int) -> tuple[Image.Image, ImageDraw.ImageDraw]:
    """A bench top under a lamp."""
    picture = Image.new("RGB", SIZE, BENCH)
    draw = ImageDraw.Draw(picture)
    chance = random.Random(seed)
    for _ in range(160):
        y = chance.randrange(SIZE[1])
        shade = chance.randrange(-14, 14)
        draw.line([(0, y), (SIZE[0], y + chance.randrange(-8, 8))], fill=tuple(c + shade for c in BENCH), width=3)
    return picture, draw


def _brushed(draw: ImageDraw.ImageDraw, box: tuple[int, int, int, int], seed: int) -> None:
    """A face of brushed stainless steel."""
    chance = random.Random(seed)
    left, top, right, bottom = box
    for y in range(top, bottom, 2):
        shade = chance.randrange(-10, 10) + (y - top) * 30 // (bottom - top)
        draw.line([(left, y), (right, y)], fill=tuple(c + shade - 15 for c in STEEL), width=2)


def _bytes(picture: Image.Image) -> bytes:
    out = io.BytesIO()
    picture.filter(ImageFilter.GaussianBlur(0.8)).save(out, "JPEG", quality=88)
    return out.getvalue()


def bent() -> bytes:
    """A wrapper with its second bend, a protractor on it."""
    picture, draw = _shop(1)
    draw.polygon([(120, 640), (900, 640), (980, 560), (200, 560)], fill=STEEL)
    draw.polygon([(900, 640), (980, 560), (980, 130), (900, 210)], fill=tuple(c - 26 for c in STEEL))
    draw.line([(900, 640), (980, 560)], fill=DARK, width=6)
    draw.arc([620, 330, 1180, 890], 180, 270, fill=(214, 200, 120), width=26)
    for n in range(10):
        draw.line([(640 + 28 * n, 600 - 30 * n), (655 + 28 * n, 615 - 30 * n)], fill=DARK, width=3)
    return _bytes(picture)


def neck() -> bytes:
    """A filler neck in the lid."""
    picture, draw = _shop(2)
    _brushed(draw, (90, 120, 1110, 800), 3)
    draw.ellipse([420, 270, 790, 640], fill=(150, 134, 112))
    draw.ellipse([440, 290, 770, 620], fill=STEEL)
    draw.ellipse([480, 330, 730, 580], fill=(30, 33, 36))
    for n in range(64):
        at = random.Random(n).uniform(-5, 5)
        draw.arc([428 + at, 278, 782 + at, 632], n * 5.6, n * 5.6 + 4, fill=(120, 112, 120), width=12)
    return _bytes(picture)


def seam() -> bytes:
    """An end pan's seam with a start that was redone."""
    picture, draw = _shop(4)
    _brushed(draw, (60, 90, 1140, 460), 5)
    _brushed(draw, (60, 460, 1140, 830), 6)
    draw.rectangle([60, 420, 1140, 500], fill=(156, 148, 140))
    for n in range(54):
        x = 60 + n * 20
        tint = (128, 116, 140) if n % 7 else (150, 124, 96)
        draw.arc([x, 425, x + 46, 495], 90, 270, fill=tint, width=7)
    draw.ellipse([330, 410, 470, 512], fill=(138, 120, 104))
    return _bytes(picture)


PICTURES: dict[str, Callable[[], bytes]] = {"bend": bent, "neck": neck, "seam": seam}
