package rivo.server.fleet;

import java.time.Clock;
import java.time.Duration;
import java.util.HashMap;
import java.util.Map;
import org.springframework.scheduling.annotation.Scheduled;
import org.springframework.stereotype.Component;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.EstateRecords;
import rivo.server.estate.SignIns;

/** Whoever has not signed in on a device for a month is none of its people any more, unless the directory names them. */
@Component
public class ForgottenSignIns {

    private static final Duration REMEMBERED = Duration.ofDays(30);

    private final CurrentSnapshot current;
    private final ChangeWriter writer;
    private final Clock clock;

    ForgottenSignIns(CurrentSnapshot current, ChangeWriter writer, Clock clock) {
        this.clock = clock;
        this.current = current;
        this.writer = writer;
    }

    @Scheduled(initialDelayString = "PT15M", fixedDelayString = "PT6H")
    void forget() {
        forget(REMEMBERED);
    }

    /** Forgets those who have been away for so long. Costs a pass over what devices have told, beside the writer. */
    public void forget(Duration away) {
        boolean none = current.now().get(SignIns.PART).values().stream().allMatch(told -> told.since(clock.instant().minus(away)).equals(told));
        if (none) {
            return;
        }
        writer.take(context -> {
            Map<String, SignIns> less = new HashMap<>();
            context.get(SignIns.PART).forEach((device, told) -> {
                SignIns rest = told.since(context.now().minus(away));
                if (!rest.equals(told)) {
                    less.put(device, rest);
                }
            });
            SignIns.keep(context, less);
            context.becomes(context.estate().withDevices(new EstateRecords(context.db()).devices(less.keySet())));
            return less.size();
        });
    }
}
