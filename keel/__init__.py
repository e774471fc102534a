"""Core Keel's computation: designs in, evaluations out. No interface, no storage."""
