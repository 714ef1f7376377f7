package rivo.server.change;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Assignment;
import rivo.core.rehearse.Difference;
import rivo.core.rehearse.TitleDifference;
import rivo.core.resolve.Decision;
import rivo.server.change.DraftRehearsal.Rehearsed;
import rivo.server.estate.Json;

/**
 * Stands for what somebody has looked at: a SHA-256 over the edits and over every difference that they make, with its title, its units and
 * both decisions (outcome, release, variant, deciding assignments, reason, and the title that has a part in it). In an order of its own, so
 * that where things stand plays no part. Costs a step for each unit that differs. Of one thread.
 */
final class RehearsalToken {

    private final Rehearsed rehearsed;
    private final MessageDigest digest;

    private RehearsalToken(Rehearsed rehearsed) {
        this.rehearsed = rehearsed;
        try {
            this.digest = MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java has SHA-256", e);
        }
    }

    /** 64 hexadecimal digits. */
    static String of(Rehearsed rehearsed) {
        RehearsalToken token = new RehearsalToken(rehearsed);
        rehearsed.edits().forEach(edit -> token.add(String.join(" ", edit.act().word(), edit.kind(), edit.document(),
                String.valueOf(edit.revision()), Json.write(edit.content() == null ? "" : edit.content()))));
        rehearsed.titles().stream().filter(title -> !title.isEmpty()).sorted(Comparator.comparing(d -> d.title().id())).forEach(token::add);
        return HexFormat.of().formatHex(token.digest.digest());
    }

    private void add(TitleDifference title) {
        add(title.title().id());
        add(title.differences(), rehearsed.after().resolver().audiences());
        add(title.gone(), rehearsed.before().resolver().audiences());
    }

    private void add(List<Difference> differences, Audiences audiences) {
        Map<String, UnitSet> inOrder = new TreeMap<>();
        differences.forEach(d -> inOrder.merge(words(d.before()) + " > " + words(d.after()), d.units(), UnitSet::or));
        inOrder.forEach((words, units) -> {
            add(words);
            audiences.ranked(units).forEach(unit -> {
                add(unit.device().id());
                add(unit.user());
            });
        });
    }

    private static String words(@Nullable Decision decision) {
        return decision == null ? "-" : String.join(",", decision.outcome().word(),
                decision.release() == null ? "" : decision.release().version().toString(), Objects.requireNonNullElse(decision.variant(), ""),
                String.join(";", decision.deciding().stream().map(Assignment::id).toList()),
                decision.reason() == null ? "" : decision.reason().word(), Objects.requireNonNullElse(decision.by(), ""));
    }

    /** Nothing that is told has a line break in it. */
    private void add(String told) {
        digest.update(told.getBytes(StandardCharsets.UTF_8));
        digest.update((byte) '\n');
    }
}
