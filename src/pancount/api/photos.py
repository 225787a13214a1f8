"""Photos of bakes: taken in, shown, told of, removed."""

from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Request, Response

from pancount.api.desk import may_answer
from pancount.api.files import FileBody
from pancount.api.long import off_loop
from pancount.api.records import RecordsOf
from pancount.core.base.models import Frozen, Words
from pancount.formats.photo import photo_of
from pancount.store import photos as store
from pancount.store.photos import PhotoHead

router = APIRouter(prefix="/api/book", tags=["book"])

JPEG = "image/jpeg"
FOR_GOOD = {"Cache-Control": "private, max-age=31536000, immutable"}
"""A photo never changes under its id."""
AS_IT_IS = {"requestBody": {"required": True, "content": {"application/octet-stream": {"schema": {"type": "string", "format": "binary"}}}}}


class PhotoChange(Frozen):
    """What is on it, and whether it is shown cropped to its middle."""

    caption: Words = ""
    square: bool = False


@router.post("/bakes/{bake_id}/photos", status_code=201, openapi_extra=AS_IT_IS, responses=may_answer(404, 409, 413, 415, 422, 503))
async def add_photo(
    bake_id: UUID, body: FileBody, request: Request, records: RecordsOf, id: Annotated[UUID, Query()], square: Annotated[bool, Query()] = False
) -> PhotoHead:
    """Keep a photo (JPEG, PNG or WebP): made smaller, upright, and stripped of place and camera. One sent twice under its id is one."""
    photo = await off_loop(request, photo_of, body, heavy=True)
    return await records(store.keep_photo, bake_id, id, photo.large, photo.small, (photo.width, photo.height), square=square, caption="")


@router.get("/photos/{photo_id}", response_class=Response, responses=may_answer(404, 422, 503) | {200: {"content": {JPEG: {}}}})
async def get_photo(photo_id: UUID, records: RecordsOf, small: Annotated[bool, Query()] = False) -> Response:
    """The picture."""
    return Response(await records(store.photo_bytes, photo_id, small=small), media_type=JPEG, headers=FOR_GOOD)


@router.put("/photos/{photo_id}", responses=may_answer(404, 422, 503))
async def change_photo(photo_id: UUID, body: PhotoChange, records: RecordsOf) -> PhotoHead:
    """Say what is on it, and how it is shown."""
    return await records(store.change_photo, photo_id, body.caption, square=body.square)


@router.delete("/photos/{photo_id}", status_code=204, responses=may_answer(404, 422, 503))
async def drop_photo(photo_id: UUID, records: RecordsOf) -> None:
    """Remove one for good."""
    await records(store.drop_photo, photo_id)
