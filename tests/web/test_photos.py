"""Photographs: known by their content, kept without where and when the camera was, turned and marked, found again, and nobody else's."""

import io
import multiprocessing
import resource
import uuid
from typing import Any

import pytest
from PIL import Image, ImageFile

from tests.conftest import Caller
from tests.web.test_said_done_due import drive, of
from tuyere.core.basis.picture import EDGE, LARGEST_BYTES, NotAPictureError, picture_of
from tuyere.serving.front import Limits
from tuyere.serving.hand import _data_bytes


def jpeg(width: int = 2400, height: int = 1200, orientation: int = 1) -> bytes:
    """A photo as a phone makes it: left half red, right half green, with a position and a thumbnail of its own."""
    picture = Image.new("RGB", (width, height), "green")
    picture.paste("red", (0, 0, width // 2, height))
    exif = Image.Exif()
    exif[0x0112], exif[0x010F] = orientation, "Camera of somebody"
    place = exif.get_ifd(0x8825)
    place[1], place[2] = "N", (52.0, 31.0, 12.0)
    out = io.BytesIO()
    picture.save(out, "JPEG", exif=exif)
    assert b"Exif" in out.getvalue()
    return out.getvalue()


def send(caller: Caller, drive_id: str, content: bytes, key: str = "", photo_id: str = "", **query: str) -> Any:
    headers = {"X-CSRFToken": caller.token, "Idempotency-Key": key or str(uuid.uuid4())}
    asked = {"id": photo_id or str(uuid.uuid4()), **query}
    return caller.client.post(
        f"/api/drives/{drive_id}/photos", query_string=asked, data=content, content_type="image/heic", headers=headers
    )


def test_a_picture_is_kept_upright_small_and_without_anything_but_itself() -> None:
    kept = picture_of(jpeg(orientation=6))  # the phone was held upright: turned clockwise by a quarter to be seen
    with Image.open(io.BytesIO(kept.content)) as whole, Image.open(io.BytesIO(kept.thumb)) as small:
        assert whole.size == (kept.width, kept.height) == (EDGE // 2, EDGE) and max(small.size) == 320
        assert not dict(whole.getexif()) and b"Exif" not in kept.content and b"Camera" not in kept.content
        top, bottom = whole.getpixel((200, 100)), whole.getpixel((200, 1500))
        assert top[0] > 200 and bottom[1] > 100, "what was left of the lying picture stands on top"
    clear = io.BytesIO()
    Image.new("RGBA", (40, 30), (0, 0, 0, 0)).save(clear, "PNG")
    with Image.open(io.BytesIO(picture_of(clear.getvalue()).content)) as white:
        assert min(white.getpixel((5, 5))) > 250, "clear ground turns white, not black"


@pytest.mark.parametrize(
    "content",
    [
        b"",
        b"GIF89a\x01\x00\x01\x00",
        b"<svg xmlns='http://www.w3.org/2000/svg'><script>1</script></svg>",
        b"\xff\xd8\xff\xe0nothing more",
        b"%PDF-1.7",
        jpeg()[:900],
        b"\x89PNG\r\n\x1a\n" + b"\0" * 40,
    ],
)
def test_what_is_no_picture_is_refused_by_its_content(content: bytes, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(ImageFile, "LOAD_TRUNCATED_IMAGES", True)  # as it stands once something was printed
    with pytest.raises(NotAPictureError, match="JPEG, PNG or WebP"):
        picture_of(content)


def of_dots(width: int, height: int, kind: str = "PNG", mode: str = "1", **how: Any) -> bytes:
    out = io.BytesIO()
    Image.new(mode, (width, height)).save(out, kind, **how)
    return out.getvalue()


@pytest.mark.parametrize(
    ("content", "word"),
    [
        (of_dots(8900, 8900), "8900 × 8900"),
        (of_dots(5001, 5000), "as JPEG"),
        (of_dots(20_000, 20_000), "too many dots"),
        (of_dots(5001, 5000, "WEBP", "RGB"), "as JPEG"),
        (of_dots(9000, 9000, "JPEG", "L"), "lower setting"),
        (of_dots(1, 200_000), "1 × 200000"),
        (of_dots(60_000, 180, "JPEG", "L"), "strip"),
        (b"\xff" * (LARGEST_BYTES + 1), "16 MB"),
    ],
)
def test_bombs_and_strips_are_refused_by_the_header_before_they_are_unpacked(content: bytes, word: str) -> None:
    with pytest.raises(NotAPictureError, match=word):
        picture_of(content)


@pytest.mark.parametrize(
    ("content", "size"),
    [
        (of_dots(5000, 5000, "PNG", "LA"), (EDGE, EDGE)),
        (of_dots(60_000, 200, "JPEG", "L"), (EDGE, 5)),
        (of_dots(1, 1), (1, 1)),
        (of_dots(8900, 8900, "JPEG", "CMYK", progressive=True), (EDGE, EDGE)),
        (of_dots(3, 900, "PNG", "I;16"), (3, 900)),
    ],
)
def test_odd_shapes_and_large_ones_are_kept_within_what_a_request_may_take(content: bytes, size: tuple[int, int]) -> None:
    """A process of its own with the bound that the server sets it."""
    told, telling = multiprocessing.Pipe(duplex=False)
    one = multiprocessing.get_context("fork").Process(target=_read_within, args=(content, telling))
    one.start()
    one.join()
    assert one.exitcode == 0 and told.recv() == size


def _read_within(content: bytes, telling: Any) -> None:
    bound = _data_bytes() + Limits.memory_mb * 1024**2
    resource.setrlimit(resource.RLIMIT_DATA, (bound, bound))
    kept = picture_of(content)
    telling.send((kept.width, kept.height))


def test_a_photo_of_a_finding_is_kept_once_marked_and_found_again(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    drive_id = of(caller, "Steep-water pump")["id"]
    said = caller.post(f"/api/drives/{drive_id}/findings", {"id": str(uuid.uuid4()), "sign": "cracked"}).json
    key, photo_id = str(uuid.uuid4()), str(uuid.uuid4())
    first = send(caller, drive_id, jpeg(), key, photo_id, finding_id=said["id"], note="third belt")
    assert (
        first.status_code == 201
        and send(caller, drive_id, jpeg(), key, photo_id, finding_id=said["id"], note="third belt").json == first.json
    )

    def listed() -> list[dict[str, Any]]:
        return [p for p in caller.get(f"/api/drives/{drive_id}/photos").json["photos"] if p["id"] == photo_id]

    (photo,) = listed()
    assert photo["finding_id"] == said["id"] and photo["note"] == "third belt" and (photo["width"], photo["height"]) == (1600, 800)
    whole, small = (caller.get(f"/api/photos/{photo_id}/picture?size={s}") for s in ("whole", "small"))
    assert whole.content_type == "image/jpeg" and len(small.data) < len(whole.data)
    assert {whole.headers["Cache-Control"], small.headers["Cache-Control"]} == {"no-store"}, "whoever has the device next finds none of it"
    arrow = {"x1": 0.1, "y1": 0.2, "x2": 0.5, "y2": 0.5}
    form = {"row_version": 1, "turned": 90, "arrows": [arrow], "note": "third belt", "finding_id": said["id"]}
    assert caller.post(f"/api/photos/{photo_id}", form).json["row_version"] == 2
    assert listed()[0]["turned"] == 90 and listed()[0]["arrows"] == [arrow]
    assert caller.post(f"/api/photos/{photo_id}", form).status_code == 409, "over a version seen"
    assert caller.post(f"/api/photos/{photo_id}", {**form, "row_version": 2, "put_away": True}).status_code == 200 and not listed()
    assert caller.post(f"/api/photos/{photo_id}", {**form, "row_version": 3}).status_code == 200 and listed(), "and back again"


def test_photos_are_refused_in_words_and_are_nobody_elses(sign_in: Any) -> None:
    caller = sign_in("Tobias")
    drive_id, other = of(caller, "Steep-water pump")["id"], of(caller, "Kiln exhaust fan")["id"]
    bad = send(caller, drive_id, b"not a picture")
    assert bad.status_code == 422 and bad.json["errors"][0]["field"] == "photo"
    large = send(caller, drive_id, b"\xff" * (LARGEST_BYTES + 10))
    assert large.status_code == 413 and "16 MB" in large.json["detail"]
    elsewhere = caller.post(f"/api/drives/{other}/findings", {"id": str(uuid.uuid4()), "sign": "rust"}).json["id"]
    assert send(caller, drive_id, jpeg(), finding_id=elsewhere).json["errors"][0]["field"] == "finding_id"
    kept = send(caller, drive_id, jpeg()).json["id"]
    viewer = sign_in("Rowan")
    assert viewer.get(f"/api/photos/{kept}/picture").status_code == 200
    assert send(viewer, drive_id, jpeg()).status_code == 403
    assert caller.client.application.test_client().get(f"/api/photos/{kept}/picture").status_code == 401
    assert drive(caller, drive_id)["id"] == drive_id
