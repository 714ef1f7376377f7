package rivo.core.state;

import java.time.Duration;
import java.time.Instant;
import java.util.Arrays;
import org.jspecify.annotations.Nullable;

/**
 * In which hours of the last 14 days a device has called in, and when it may therefore be expected to. Immutable.
 *
 * <p><b>How likely an hour is.</b> The share of the days on which it called in at that hour of the day, those that were the same day of the week
 * counting four times, among the days that are known of it.
 */
public final class CallInHabit {

    /** How far back it is looked at, and how far ahead. */
    public static final Duration REACH = Duration.ofDays(14);
    /** Of one that never has. */
    public static final CallInHabit NONE = new CallInHabit(Long.MIN_VALUE, new long[Words.COUNT]);

    private static final int DAY = 24;
    private static final int WEEK = 7;
    private static final int HOURS = 14 * DAY;
    private static final long HOUR_SECONDS = 3600;
    /** How much more a day of the same day of the week counts than another. */
    private static final int SAME_DAY_MORE = 3;

    private static final class Words {
        static final int COUNT = (HOURS + Long.SIZE - 1) / Long.SIZE;
    }

    private final long last;
    private final long[] hours;

    private CallInHabit(long last, long[] hours) {
        this.last = last;
        this.hours = hours;
    }

    private static long hour(Instant at) {
        return Math.floorDiv(at.getEpochSecond(), HOUR_SECONDS);
    }

    private static int bit(long hour) {
        return (int) Math.floorMod(hour, (long) HOURS);
    }

    private static boolean isSet(long[] hours, long hour) {
        int bit = bit(hour);
        return (hours[bit / Long.SIZE] & 1L << bit % Long.SIZE) != 0;
    }

    private boolean calledIn(long hour) {
        return hour <= last && hour > last - HOURS && isSet(hours, hour);
    }

    /** The same once it has called in at this instant, too; one before its last changes nothing. */
    public CallInHabit with(Instant at) {
        long hour = hour(at);
        if (hour <= last) {
            return this;
        }
        long[] next = last == Long.MIN_VALUE || hour - last >= HOURS ? new long[Words.COUNT] : hours.clone();
        for (long passed = last + 1; last != Long.MIN_VALUE && hour - last < HOURS && passed < hour; passed++) {
            int bit = bit(passed);
            next[bit / Long.SIZE] &= ~(1L << bit % Long.SIZE);
        }
        int bit = bit(hour);
        next[bit / Long.SIZE] |= 1L << bit % Long.SIZE;
        return new CallInHabit(hour, next);
    }

    /** Whether it has not called in within {@link #REACH}. */
    public boolean isAway(Instant now) {
        return last == Long.MIN_VALUE || last <= hour(now) - HOURS;
    }

    /**
     * By when it has called in with this likelihood, as it is used to.
     *
     * @param likelihood 0 to 1
     * @return null where it is not that likely within {@link #REACH}
     */
    public @Nullable Instant callsInBy(double likelihood, Instant now) {
        if (isAway(now)) {
            return null;
        }
        long from = hour(now);
        long first = first();
        double not = 1;
        for (long hour = from; hour < from + HOURS; hour++) {
            double chance = chance(hour, from, first);
            double before = 1 - not;
            not *= 1 - chance;
            double after = 1 - not;
            if (after >= likelihood && after > before) {
                double part = Math.max(0, Math.min(1, (likelihood - before) / (after - before)));
                Instant by = Instant.ofEpochSecond(hour * HOUR_SECONDS + Math.round(part * HOUR_SECONDS));
                return by.isBefore(now) ? now : by;
            }
        }
        return null;
    }

    private long first() {
        for (long hour = last - HOURS + 1; last != Long.MIN_VALUE && hour <= last; hour++) {
            if (isSet(hours, hour)) {
                return hour;
            }
        }
        return Long.MAX_VALUE;
    }

    private double chance(long hour, long from, long first) {
        int weight = 0;
        int hits = 0;
        for (long day = 1; day <= HOURS / DAY; day++) {
            long then = from + Math.floorMod(hour - from, (long) DAY) - day * DAY;
            if (then >= first && then < from) {
                int counts = Math.floorMod(hour - then, (long) DAY * WEEK) == 0 ? 1 + SAME_DAY_MORE : 1;
                weight += counts;
                hits += calledIn(then) ? counts : 0;
            }
        }
        return weight == 0 ? 0 : (double) hits / weight;
    }

    /** For {@link #of}. */
    public byte[] bytes() {
        byte[] bytes = new byte[Long.BYTES * (1 + Words.COUNT)];
        put(bytes, 0, last);
        for (int i = 0; i < hours.length; i++) {
            put(bytes, 1 + i, hours[i]);
        }
        return bytes;
    }

    private static void put(byte[] bytes, int place, long word) {
        for (int i = 0; i < Long.BYTES; i++) {
            bytes[place * Long.BYTES + i] = (byte) (word >> Byte.SIZE * i);
        }
    }

    private static long word(byte[] bytes, int place) {
        long word = 0;
        for (int i = Long.BYTES - 1; i >= 0; i--) {
            word = word << Byte.SIZE | bytes[place * Long.BYTES + i] & 0xff;
        }
        return word;
    }

    /** @param bytes null for one that nothing is known of, as anything that was not made by {@link #bytes} */
    public static CallInHabit of(byte @Nullable [] bytes) {
        if (bytes == null || bytes.length != Long.BYTES * (1 + Words.COUNT)) {
            return NONE;
        }
        long[] hours = new long[Words.COUNT];
        for (int i = 0; i < hours.length; i++) {
            hours[i] = word(bytes, 1 + i);
        }
        return new CallInHabit(word(bytes, 0), hours);
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof CallInHabit habit && habit.last == last && Arrays.equals(habit.hours, hours);
    }

    @Override
    public int hashCode() {
        return Long.hashCode(last) + Arrays.hashCode(hours);
    }
}
