"""The role that the application works under: it reads and writes rows, and may do nothing else to the database."""

import secrets

from sqlalchemy import Engine, make_url, text

APPLICATION = "pancount_application"


def application_url(engine: Engine, url: str) -> str:
    """The address of the same database for the application. Its password is new with each start and stands in no file.

    `engine` is that of the role that owns the tables.
    """
    password = secrets.token_urlsafe(24)  # letters, digits, - and _: nothing that would end the text it stands in
    with engine.begin() as connection:
        known = connection.execute(text("SELECT 1 FROM pg_roles WHERE rolname = :name"), {"name": APPLICATION}).scalar()
        limits = "NOSUPERUSER NOCREATEDB NOCREATEROLE NOREPLICATION"
        connection.execute(text(f"{'ALTER' if known else 'CREATE'} ROLE {APPLICATION} LOGIN {limits} PASSWORD '{password}'"))
        for grant in (
            "USAGE ON SCHEMA public",
            "SELECT, INSERT, UPDATE, DELETE ON ALL TABLES IN SCHEMA public",
            "USAGE ON ALL SEQUENCES IN SCHEMA public",
        ):
            connection.execute(text(f"GRANT {grant} TO {APPLICATION}"))
    return make_url(url).set(username=APPLICATION, password=password).render_as_string(hide_password=False)
