"""What has to be bought for a design, so that nothing is missing on the day."""
