package rivo.server.fleet;

import io.swagger.v3.oas.annotations.media.Schema;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.User;
import rivo.devices.protocol.JobState;
import rivo.devices.protocol.Progress;
import rivo.server.audience.Names;

/**
 * One device in the list.
 *
 * @param ou the names of its OUs below the root, joined; empty outside every OU
 * @param state what it is doing, the most pressing first
 * @param line the same in words
 */
record DeviceRow(String id, String name, String ou, List<String> people, @Nullable Instant lastSeen,
        @Schema(allowableValues = {"failed", "under-way", "waiting", "idle", "not-seen-lately", "never"}) String state, String line,
        @Nullable Integer percent) {

    /** What a device is doing, the most pressing first. */
    enum State {
        FAILED, UNDER_WAY, WAITING, IDLE, NOT_SEEN_LATELY, NEVER;

        /** As lists and addresses have it. */
        String word() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    static DeviceRow of(Estate estate, Device device, DeviceActivity doing, Instant now) {
        Progress failed = doing.any(JobState.FAILED).orElse(null);
        Progress running = doing.any(JobState.RUNNING).orElse(null);
        Progress waiting = doing.any(JobState.WAITING).orElse(null);
        Progress shown = running != null ? running : failed != null ? failed : waiting;
        return new DeviceRow(device.id(), device.name(), path(estate, device), people(estate, device),
                doing.lastSeen(), state(doing, now).word(), line(estate, doing, shown, now),
                running == null ? null : (Integer) running.percent());
    }

    static State state(DeviceActivity doing, Instant now) {
        if (doing.any(JobState.RUNNING).isPresent()) {
            return State.UNDER_WAY;
        }
        if (doing.any(JobState.FAILED).isPresent()) {
            return State.FAILED;
        }
        if (doing.any(JobState.WAITING).isPresent()) {
            return State.WAITING;
        }
        return doing.lastSeen() == null ? State.NEVER : doing.isOverdue(now) ? State.NOT_SEEN_LATELY : State.IDLE;
    }

    private static String line(Estate estate, DeviceActivity doing, @Nullable Progress shown, Instant now) {
        if (shown == null) {
            return doing.lastSeen() == null ? "has never called in" : doing.isOverdue(now) ? "not seen lately" : "nothing under way";
        }
        var title = estate.title(shown.title());
        return (title == null ? shown.title() : title.name()) + ": " + shown.message();
    }

    static String path(Estate estate, Device device) {
        return device.ou() == null ? "" : Names.where(estate, device.ou());
    }

    static List<String> people(Estate estate, Device device) {
        return device.people().stream().map(id -> estate.users().find(id)).filter(Objects::nonNull)
                .map(User::fullName).toList();
    }
}
