package rivo.core.estate;

import java.math.BigDecimal;
import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * One wave of an assignment: it takes the units that one of {@code to} holds, or a share of the devices.
 *
 * @param to empty for a share
 * @param share percent, 0 to 100, both included; null when targets are named
 * @param open whether what it takes is served already
 */
public record Wave(List<Target> to, @Nullable BigDecimal share, boolean open) {

    private static final BigDecimal ALL = BigDecimal.valueOf(100);

    public Wave {
        to = List.copyOf(to);
        if (share != null && (!to.isEmpty() || share.signum() < 0 || share.compareTo(ALL) > 0)) {
            throw new IllegalArgumentException("a wave has targets, or a share of 0 to 100");
        }
    }

    public static Wave to(List<Target> targets, boolean open) {
        return new Wave(targets, null, open);
    }

    public static Wave share(int percent, boolean open) {
        return new Wave(List.of(), BigDecimal.valueOf(percent), open);
    }
}
