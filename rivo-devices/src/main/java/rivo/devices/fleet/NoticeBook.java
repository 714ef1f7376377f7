package rivo.devices.fleet;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.devices.protocol.NoticeKind;

/**
 * What a simulated device has told and asked, and what waits for it. Immutable.
 *
 * @param last the number of its last notice
 * @param asks what is open
 * @param held what is to be told once somebody is there and may be told
 * @param told what has been told of jobs that are still to do, so that nothing is told twice
 * @param unfinished the jobs of which all is done but a restart or a sign-out, by their names, with which
 */
record NoticeBook(long last, List<Ask> asks, List<Held> held, Set<String> told, Map<String, NoticeKind> unfinished) {

    static final NoticeBook EMPTY = new NoticeBook(0, List.of(), List.of(), Set.of(), Map.of());

    /**
     * Something that nobody has been told yet.
     *
     * @param job as {@link DeviceJobs} names it
     * @param person the id of the only one it is for; null for whoever is there
     */
    record Held(String id, NoticeKind kind, String job, String title, @Nullable String person, String words) {
    }

    NoticeBook {
        asks = List.copyOf(asks);
        held = List.copyOf(held);
        told = Set.copyOf(told);
        unfinished = Map.copyOf(unfinished);
    }

    NoticeBook withNext() {
        return new NoticeBook(last + 1, asks, held, told, unfinished);
    }

    /** With this one in the place of the one of its id, or behind them. */
    NoticeBook with(Ask ask) {
        List<Ask> next = new ArrayList<>(asks);
        next.removeIf(one -> one.id().equals(ask.id()));
        next.add(ask);
        return new NoticeBook(last, next, held, told, unfinished);
    }

    NoticeBook without(Ask ask) {
        return new NoticeBook(last, asks.stream().filter(one -> !one.id().equals(ask.id())).toList(), held, told, unfinished);
    }

    NoticeBook withHeld(List<Held> newHeld) {
        return new NoticeBook(last, asks, newHeld, told, unfinished);
    }

    NoticeBook withTold(Set<String> newTold) {
        return new NoticeBook(last, asks, held, newTold, unfinished);
    }

    NoticeBook told(String what) {
        Set<String> next = new HashSet<>(told);
        next.add(what);
        return withTold(next);
    }

    NoticeBook unfinished(String job, NoticeKind needs) {
        Map<String, NoticeKind> next = new HashMap<>(unfinished);
        next.put(job, needs);
        return withUnfinished(next);
    }

    NoticeBook withUnfinished(Map<String, NoticeKind> next) {
        return new NoticeBook(last, asks, held, told, next);
    }
}
