package rivo.server;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.ZoneOffset;

/** A clock that is moved by hand. */
public final class HandClock extends Clock {

    private volatile Instant now;

    public HandClock(Instant now) {
        this.now = now;
    }

    public void passes(Duration time) {
        now = now.plus(time);
    }

    @Override
    public Instant instant() {
        return now;
    }

    @Override
    public ZoneId getZone() {
        return ZoneOffset.UTC;
    }

    @Override
    public Clock withZone(ZoneId zone) {
        return this;
    }
}
