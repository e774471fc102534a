"""Pictures: read, turned upright, made anew without what the camera wrote into them, kept beside a small one."""

import hashlib
import io
import warnings
from pathlib import Path

from django.conf import settings
from PIL import Image, ImageOps, UnidentifiedImageError

from server.floor.models import Photo
from server.http.errors import ApiError, refused
from server.jobs.models import Job
from server.workshop.models import Person

MOST_BYTES = 20_000_000
MOST_PIXELS = 120_000_000
LARGE_PX, SMALL_PX = 2400, 360
QUALITY = 84
FORMATS = ("JPEG", "PNG", "WEBP", "GIF")


def kept(job: Job, person: Person, client_id: str, sent: bytes) -> Photo:
    """Keep a photo of a job; one that is there already stays as it is.

    Raises
    ------
    ApiError
        422 for what is no picture, or too large a one.
    """
    there = job.photos.filter(client_id=client_id).first()
    if there is not None:
        return there
    picture = _read(sent)
    large = _as_jpeg(picture, LARGE_PX)
    fingerprint = hashlib.sha256(large).hexdigest()
    for content, small in ((large, False), (_as_jpeg(picture, SMALL_PX), True)):
        _write(path_of(job.workshop_id, fingerprint, small=small), content)
    wide, high = Image.open(io.BytesIO(large)).size
    made, _ = Photo.objects.get_or_create(
        job=job,
        client_id=client_id,
        defaults={"workshop_id": job.workshop_id, "fingerprint": fingerprint, "wide_px": wide, "high_px": high}
        | {"author": person},
    )
    return made


def path_of(workshop_id: int, fingerprint: str, *, small: bool) -> Path:
    """Where a picture lies."""
    name = f"{fingerprint}-small.jpg" if small else f"{fingerprint}.jpg"
    return Path(settings.KEEL_HOME) / "photos" / str(workshop_id) / fingerprint[:2] / name


def _read(sent: bytes) -> Image.Image:
    if len(sent) > MOST_BYTES:
        message = f"This is {len(sent) / 1e6:.4g} MB; {MOST_BYTES / 1e6:g} MB or less are taken."
        raise ApiError(413, "too_large", message)
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("error", Image.DecompressionBombWarning)
            picture = Image.open(io.BytesIO(sent), formats=FORMATS)
            if picture.width * picture.height > MOST_PIXELS:
                said = f"{picture.width} × {picture.height}"
                message = f"The picture has {said} dots; {MOST_PIXELS // 1_000_000} million or fewer are taken."
                raise refused("photo", said, f"{MOST_PIXELS} dots", message)
            return ImageOps.exif_transpose(picture).convert("RGB")
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError, Image.DecompressionBombError, Warning) as error:
        limit = "JPEG, PNG, WebP or GIF"
        raise refused("photo", f"{len(sent)} bytes", limit, f"This is no picture that can be read: {limit}.") from error


def _as_jpeg(picture: Image.Image, longest_px: int) -> bytes:
    smaller = picture.copy()
    smaller.thumbnail((longest_px, longest_px))
    out = io.BytesIO()
    smaller.save(out, "JPEG", quality=QUALITY, optimize=True)
    return out.getvalue()


def _write(path: Path, content: bytes) -> None:
    """Whole or not at all: a file that is there is never half of one."""
    if path.is_file():
        return
    path.parent.mkdir(parents=True, exist_ok=True)
    half = path.with_suffix(f".{hashlib.sha256(content).hexdigest()[:8]}.part")
    half.write_bytes(content)
    half.replace(path)
