"""Readings of a leak test stay as they came: the database refuses to change or remove them."""

from django.db import migrations

FORBID = """
CREATE FUNCTION floor_readings_stay() RETURNS trigger AS $$
BEGIN
    RAISE EXCEPTION 'readings of a leak test are never changed';
END;
$$ LANGUAGE plpgsql;
CREATE TRIGGER floor_readings_stay BEFORE UPDATE OR DELETE ON floor_pressures
    FOR EACH ROW EXECUTE FUNCTION floor_readings_stay();
"""
ALLOW = "DROP TRIGGER floor_readings_stay ON floor_pressures; DROP FUNCTION floor_readings_stay();"


class Migration(migrations.Migration):
    """A trigger on the readings."""

    dependencies = [("floor", "0003_leak_tests")]

    operations = [migrations.RunSQL(FORBID, ALLOW)]
