"""Pictures of the cut face: taken in, made anew without anything that came with them, and shown."""

import io
from uuid import UUID

from django.http import HttpRequest, HttpResponse
from ninja import File, Router
from ninja.errors import HttpError
from ninja.files import UploadedFile
from PIL import Image, ImageOps, UnidentifiedImageError

from batches.book import bare_batch_of, photos_of
from batches.models import Photo
from batches.shapes import PhotoOut
from bellcrumb.errors import CraftError
from bellcrumb.words import say
from kitchen.access import member_of
from shared.heavy import heavy
from shared.now import now as clock_now
from shared.shapes import PROBLEMS

router = Router(tags=["batches"])
MOST_BYTES = 15_000_000
MOST_PIXELS = 60_000_000
LONGEST_PX, QUALITY = 1600, 82
MOST_PHOTOS = 6
_KINDS = ("JPEG", "PNG", "WEBP")


def made_anew(raw: bytes) -> tuple[bytes, int, int]:
    """A JPEG of at most ``LONGEST_PX`` with nothing but its pixels. Raises CraftError at ``file``
    for what is no picture, or too large a one."""
    try:
        with Image.open(io.BytesIO(raw), formats=_KINDS) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                raise CraftError("file", say("batches.this_picture_has_more_points_than"))
            upright = ImageOps.exif_transpose(opened).convert("RGB")
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError) as error:
        raise CraftError("file", say("batches.this_is_no_picture_jpeg_png")) from error
    except Image.DecompressionBombError as error:
        raise CraftError("file", say("batches.this_picture_has_too_many_points")) from error
    upright.thumbnail((LONGEST_PX, LONGEST_PX))
    clean = Image.new("RGB", upright.size)
    clean.paste(upright)
    out = io.BytesIO()
    clean.save(out, "JPEG", quality=QUALITY, optimize=True)
    return out.getvalue(), clean.width, clean.height


@router.post(
    "/k/{kid}/batches/{batch_id}/photos/{photo_id}", response={200: list[PhotoOut], **PROBLEMS}
)
@heavy
def add_photo(
    request: HttpRequest, kid: UUID, batch_id: UUID, photo_id: UUID, file: File[UploadedFile]
) -> list[PhotoOut]:
    """Add a picture; the id is made by the client, so that sending it twice adds one."""
    member = member_of(request, kid)
    batch = bare_batch_of(member, batch_id)
    if (file.size or 0) > MOST_BYTES:
        raise CraftError("file", say("batches.at_most_mb_please", most_bytes=MOST_BYTES // 1000000))
    there = Photo.objects.filter(pk=photo_id).first()
    if there and there.batch_id != batch.pk:
        raise HttpError(404, say("batches.there_is_no_such_picture_for"))
    if not there:
        if batch.photos.count() >= MOST_PHOTOS:
            raise CraftError(
                "file", say("batches.a_batch_keeps_pictures_take_one", most_photos=MOST_PHOTOS)
            )
        jpeg, width, height = made_anew(file.read())
        Photo.objects.get_or_create(
            id=photo_id,
            defaults={"batch": batch, "jpeg": jpeg, "width": width, "height": height,
                      "at": clock_now(), "by": member.user},
        )  # fmt: skip
    return photos_of(batch.pk)


@router.get("/k/{kid}/batches/{batch_id}/photos/{photo_id}", response={200: None, **PROBLEMS})
def show_photo(request: HttpRequest, kid: UUID, batch_id: UUID, photo_id: UUID) -> HttpResponse:
    """A picture itself, for people of this kitchen."""
    batch = bare_batch_of(member_of(request, kid), batch_id)
    photo = Photo.objects.filter(pk=photo_id, batch=batch).first()
    if not photo:
        raise HttpError(404, say("batches.this_picture_is_not_in_the"))
    answer = HttpResponse(bytes(photo.jpeg), content_type="image/jpeg")
    answer["X-Content-Type-Options"] = "nosniff"
    return answer


@router.delete(
    "/k/{kid}/batches/{batch_id}/photos/{photo_id}", response={200: list[PhotoOut], **PROBLEMS}
)
def drop_photo(request: HttpRequest, kid: UUID, batch_id: UUID, photo_id: UUID) -> list[PhotoOut]:
    """Take a picture out of the book."""
    batch = bare_batch_of(member_of(request, kid), batch_id)
    Photo.objects.filter(pk=photo_id, batch=batch).delete()
    return photos_of(batch.pk)
