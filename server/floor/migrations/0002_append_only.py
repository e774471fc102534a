"""The log only grows: the database refuses to change or remove an entry."""

from django.db import migrations

FORBID = """
CREATE FUNCTION floor_log_only_grows() RETURNS trigger AS $$
BEGIN
    RAISE EXCEPTION 'the log of a job only grows: write a correction instead';
END;
$$ LANGUAGE plpgsql;
CREATE TRIGGER floor_log_only_grows BEFORE UPDATE OR DELETE ON floor_logentry
    FOR EACH ROW EXECUTE FUNCTION floor_log_only_grows();
"""
ALLOW = "DROP TRIGGER floor_log_only_grows ON floor_logentry; DROP FUNCTION floor_log_only_grows();"


class Migration(migrations.Migration):
    """A trigger on the entries."""

    dependencies = [("floor", "0001_initial")]

    operations = [migrations.RunSQL(FORBID, ALLOW)]
