package rivo.devices.fleet;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import rivo.devices.protocol.Progress;
import rivo.devices.protocol.Report;

/**
 * What a simulated device has not been able to tell the server: it is said with the next report that is taken, also after a restart of its
 * program. Immutable.
 *
 * @param progress the newest last
 * @param fetched the newest last
 */
record Unheard(List<Progress> progress, List<Report.Fetched> fetched) {

    static final Unheard NOTHING = new Unheard(List.of(), List.of());
    /** As much of either as one report may hold; of more, the newest is kept. */
    static final int MOST = 200;

    Unheard {
        progress = List.copyOf(progress);
        fetched = List.copyOf(fetched);
    }

    boolean isNothing() {
        return progress.isEmpty() && fetched.isEmpty();
    }

    Unheard and(List<Progress> moreProgress, List<Report.Fetched> moreFetched) {
        return new Unheard(newest(progress, moreProgress), newest(fetched, moreFetched));
    }

    Unheard without(Unheard some) {
        return new Unheard(progress.stream().filter(one -> !some.progress.contains(one)).toList(), fetched.stream().filter(one -> !some.fetched.contains(one)).toList());
    }

    /** Each by itself, in order. */
    List<Unheard> each() {
        return Stream.concat(progress.stream().map(one -> new Unheard(List.of(one), List.of())), fetched.stream().map(one -> new Unheard(List.of(), List.of(one)))).toList();
    }

    private static <T> List<T> newest(List<T> before, List<T> more) {
        List<T> all = new ArrayList<>(before);
        all.addAll(more);
        return all.subList(Math.max(0, all.size() - MOST), all.size());
    }
}
