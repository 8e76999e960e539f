"""A traced picture is stored once, however often its order is saved, and every revision still has it."""

import base64
import json

from sqlalchemy import text

from amber_spread.core.design.builds import CarvedBuild, Picture
from amber_spread.core.design.design import Tier
from amber_spread.core.document import Document
from amber_spread.store.archive import restore_archive, write_archive
from amber_spread.store.migrate import migrate
from amber_spread.store.orders import OrderBook
from tests.designs import document

JPEG = base64.b64encode(bytes(range(256)) * 300).decode()
SHAPE = ((0, 0), (200, 0), (200, 61), (90, 97), (0, 60))


def traced(title, jpeg=JPEG):
    build = CarvedBuild(points_mm=SHAPE, picture=Picture(jpeg=jpeg, wide_mm=240))
    return document(Tier(tin_diameter_mm=200, build=build), title=title)


def jpegs(found: Document):
    return [tier.build.picture.jpeg for tier in found.design.tiers]


def sizes(book):
    with book.engine.connect() as connection:
        rows = connection.execute(text("select length(document::text) from revisions")).scalars().all()
        return rows, connection.execute(text("select length(data) from pictures")).scalars().all()


def test_a_picture_is_stored_once_and_every_revision_has_it(book):
    id = book.create(traced("One")).id
    for number in range(1, 6):
        book.save(id, number, traced(f"Version {number}"))
    copy = book.duplicate(id)
    designs, pictures = sizes(book)
    assert pictures == [len(JPEG)]
    assert max(designs) < len(JPEG) / 5
    assert jpegs(book.open(id).document) == jpegs(copy.document) == jpegs(book.document_at(id, 3)) == [JPEG]
    assert book.written(id)[1] == traced("Version 5").model_dump(mode="json")
    # The same save again changes nothing; another picture is stored beside the first.
    assert book.save(id, 6, traced("Version 5")).revision == 6
    other = JPEG[:-4] + "AAAA"
    assert jpegs(book.save(id, 6, traced("Version 5", other)).document) == [other]
    assert len(sizes(book)[1]) == 2
    assert jpegs(book.go_back(id, 2).document) == [JPEG]


def test_a_revision_from_before_keeps_its_picture_inside(book):
    id = book.create(traced("One")).id
    with book.engine.begin() as connection:
        whole = json.dumps(traced("One").model_dump(mode="json"))
        connection.execute(text("update revisions set document = :whole, pictures = '{}'"), {"whole": whole})
        connection.execute(text("delete from pictures"))
    assert jpegs(book.open(id).document) == [JPEG]
    assert book.save(id, 1, traced("One")).revision == 1


def test_pictures_go_into_a_backup_and_into_the_files_in_it(book, postgres, tmp_path):
    id = book.create(traced("One")).id
    path = tmp_path / "studio.zip"
    assert write_archive(book.engine, path, {})["pictures"] == 1
    other = OrderBook.at(postgres.url("pictures"))
    migrate(other.engine)
    restore_archive(other.engine, path, over=True)
    assert other.open(id).document == book.open(id).document
    other.engine.dispose()


def test_going_back_to_the_version_before_puts_every_picture_back(postgres):
    from alembic import command
    from alembic.config import Config

    book = OrderBook.at(postgres.url("pictures_before"))
    migrate(book.engine)
    book.create(traced("One"))
    config = Config()
    config.set_main_option("script_location", "amber_spread/store/migrations")
    with book.engine.begin() as connection:
        config.attributes["connection"] = connection
        command.downgrade(config, "0010")
        stored = connection.execute(text("select document from revisions")).scalar_one()
        assert stored["design"]["tiers"][0]["build"]["picture"]["jpeg"] == JPEG
        command.downgrade(config, "0009")
        command.upgrade(config, "head")
    book.engine.dispose()
