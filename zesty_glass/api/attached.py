"""Pictures of a visit and certificates of items, as files."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated
from uuid import UUID

from fastapi import APIRouter, Query, Response
from pydantic import BaseModel, Field

from ..records.file_models import FileRow
from ..work import files
from .context import Managing, Signed
from .files import FileBody
from .paging import Paged
from .responses import PRIVATE, described, safe_name

router = APIRouter(prefix="/api", tags=["files"])
Of = Annotated[str, Query(min_length=1, max_length=200)]
ItemCode = Annotated[str, Query(min_length=1, max_length=80)]


class PictureLine(BaseModel):
    """A picture of a visit, without its bytes."""

    id: UUID
    about: files.About = Field(description="What it shows: a reading, or a step of a sheet.")
    of: str = Field(description="The reading's id, or sheet/step.")
    by: str
    at: datetime
    width: int = Field(description="In pixels.")
    height: int = Field(description="In pixels.")
    size: int = Field(description="In bytes.")


class CertificateLine(BaseModel):
    """The document of an item's certificate, without its bytes."""

    id: UUID
    item: str = Field(description="Code of the item.")
    certificate: str = Field(description="Number of the certificate, as the item claims it.")
    media: str
    by: str
    at: datetime
    size: int = Field(description="In bytes.")


def _picture(row: FileRow) -> PictureLine:
    return PictureLine.model_validate(row, from_attributes=True)


def _certificate(row: FileRow) -> CertificateLine:
    return CertificateLine(
        id=row.id,
        item=row.item,
        certificate=row.of,
        media=row.media,
        by=row.by,
        at=row.at,
        size=row.size,
    )


def _file(row: FileRow, name: str, kind: str) -> Response:
    headers = {"Content-Disposition": f'{kind}; filename="{name}"', **PRIVATE}
    return Response(row.data, media_type=row.media, headers=headers)


@router.get("/visits/{id}/pictures", response_model=list[PictureLine])
def pictures(ctx: Signed, page: Paged, id: UUID) -> Response:
    """Pictures of a visit, the first taken first."""
    with ctx.db() as db:
        found = [_picture(r) for r in files.listed(db, ctx.who, id)]
    return page.answer(found, list[PictureLine], lambda x: x.id)


@router.put("/visits/{id}/pictures/{file_id}")
def put_picture(
    ctx: Signed, id: UUID, file_id: UUID, about: files.About, of: Of, data: FileBody
) -> PictureLine:
    """Keep a photograph of a reading or a step (JPEG, PNG or WebP): made small, upright, and
    without what it says of place, time and camera. The same again is one.
    """
    with ctx.db() as db:
        files.listed(db, ctx.who, id)  # who may not see the visit has nothing looked at
    sent = files.Sent(file_id, about, of, data, files.looked_at(data))
    with ctx.db() as db:
        return _picture(files.keep_picture(db, ctx.who, id, sent))


@router.get(
    "/visits/{id}/pictures/{file_id}",
    response_class=Response,
    responses=described("image/jpeg", "The picture."),
)
def picture(ctx: Signed, id: UUID, file_id: UUID) -> Response:
    """A picture of a visit."""
    with ctx.db() as db:
        return _file(files.one(db, ctx.who, file_id, id), f"{file_id}.jpg", "inline")


@router.delete("/visits/{id}/pictures/{file_id}", status_code=204)
def drop_picture(ctx: Signed, id: UUID, file_id: UUID) -> Response:
    """Take a picture away for good; the audit keeps that it was there."""
    with ctx.db() as db:
        files.take_away(db, ctx.who, file_id, id)
    return Response(status_code=204)


@router.get("/certificates", response_model=list[CertificateLine])
def certificates(ctx: Signed, page: Paged) -> Response:
    """Documents of the certificates of all items."""
    with ctx.db() as db:
        found = [_certificate(r) for r in files.certificates(db, ctx.who)]
    return page.answer(found, list[CertificateLine], lambda x: x.id)


@router.put("/certificates/{file_id}")
def put_certificate(
    ctx: Managing, file_id: UUID, item: ItemCode, certificate: Of, data: FileBody
) -> CertificateLine:
    """Attach a certificate's document (PDF, or a photograph) to an item that claims it. Managers
    only. The same again is one.
    """
    kept, media = files.read_certificate(data)
    sent = files.Document(file_id, item, certificate, data, kept, media)
    with ctx.db() as db:
        return _certificate(files.keep_certificate(db, ctx.who, sent))


@router.get(
    "/certificates/{file_id}",
    response_class=Response,
    responses=described("application/pdf", "The document, as PDF or JPEG."),
)
def certificate(ctx: Signed, file_id: UUID) -> Response:
    """A certificate's document."""
    with ctx.db() as db:
        row = files.one(db, ctx.who, file_id, None)
        ending = "pdf" if row.media == "application/pdf" else "jpg"
        return _file(row, f"certificate-{safe_name(row.of, 'x')}.{ending}", "attachment")


@router.delete("/certificates/{file_id}", status_code=204)
def drop_certificate(ctx: Managing, file_id: UUID) -> Response:
    """Take a certificate's document away. Managers only."""
    with ctx.db() as db:
        files.take_away(db, ctx.who, file_id, None)
    return Response(status_code=204)
