package rivo.core.naive;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Need;
import rivo.core.estate.Present;
import rivo.core.estate.Release;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.estate.Version;
import rivo.core.naive.NaiveModel.Base;
import rivo.core.naive.NaiveModel.Unit;

/** Sections 7 and 8 for all the titles of one unit at once, by name and without families, classes or sets. */
final class NaiveRelations {

    private final NaiveModel model;
    private final Unit unit;
    private final List<Title> titles;
    private final Map<String, Base> bases;
    /** accepted, implied, replaced, displaced, blocked or kept. */
    private final Map<String, String> decided = new HashMap<>();
    private final Map<String, String> by = new HashMap<>();
    private final Map<String, String> reasons = new HashMap<>();
    /** Accepted, implied and held titles, the one decided first in front. */
    private List<String> standing = new ArrayList<>();

    NaiveRelations(NaiveModel model, Unit unit, Scope scope) {
        this.model = model;
        this.unit = unit;
        this.titles = model.parts().titles().stream().filter(t -> t.scope() == scope)
                .sorted(Comparator.comparing(Title::id)).toList();
        this.bases = model.bases(unit);
    }

    void settle() {
        for (Base base : order()) {
            if (!decided.containsKey(base.title.id())) {
                turn(base);
            }
        }
        titles.forEach(this::write);
    }

    private List<Base> order() {
        List<Base> open = new ArrayList<>(bases.values().stream().filter(b -> !b.outcome.equals("uninstall")).toList());
        List<Base> order = new ArrayList<>();
        while (!open.isEmpty()) {
            int[] strongest = open.stream().map(b -> b.place).min(NaiveModel.STRONGEST_FIRST).orElseThrow();
            List<Base> level = open.stream().filter(b -> NaiveModel.STRONGEST_FIRST.compare(b.place, strongest) == 0)
                    .toList();
            Base next = level.stream()
                    .filter(b -> level.stream().noneMatch(o -> replaces(o.title.id(), b.title.id())))
                    .min(Comparator.comparingLong(Base::seq).thenComparing(b -> b.title.id())).orElseThrow();
            order.add(next);
            open.remove(next);
        }
        return order;
    }

    private @Nullable Release release(String title) {
        Base base = bases.get(title);
        return base == null ? model.newest(model.title(title), unit.device()) : base.release;
    }

    private boolean replaces(String one, String other) {
        Release release = release(one);
        return !one.equals(other) && release != null && release.replaces(other);
    }

    private boolean conflict(String one, String other) {
        return model.title(one).conflictsWith().contains(other) || model.title(other).conflictsWith().contains(one);
    }

    private boolean against(String one, String other) {
        return !one.equals(other) && (conflict(one, other) || replaces(one, other) || replaces(other, one));
    }

    private boolean comes(String title) {
        return "accepted".equals(decided.get(title)) || "implied".equals(decided.get(title));
    }

    private void turn(Base base) {
        String t = base.title.id();
        List<String> opposing = standing.stream().filter(s -> against(s, t)).toList();
        if (!opposing.isEmpty()) {
            String replacing = standing.stream().filter(s -> comes(s) && replaces(s, t)).findFirst().orElse(null);
            decided.put(t, replacing != null ? "replaced" : "displaced");
            by.put(t, replacing != null ? replacing : opposing.get(0));
            return;
        }
        if (base.outcome.equals("required")) {
            if (accept(t)) {
                return;
            }
        } else {
            decided.put(t, "kept");
        }
        if (model.present(unit, t) != null) {
            standing.add(t);
        }
    }

    /** What has been done for the needs of one title, which may all be taken back. */
    private static final class Attempt {
        final List<String> pulled;
        final Set<String> held;
        final List<String> standing;

        Attempt(List<String> pulled, Set<String> held, List<String> standing) {
            this.pulled = new ArrayList<>(pulled);
            this.held = new HashSet<>(held);
            this.standing = new ArrayList<>(standing);
        }

        Attempt copy() {
            return new Attempt(pulled, held, standing);
        }
    }

    private boolean accept(String t) {
        Attempt attempt = new Attempt(List.of(), Set.of(), standing);
        Release chosen = release(t);
        for (Need need : chosen == null ? List.<Need>of() : chosen.needs()) {
            Attempt after = meet(t, need, attempt);
            if (after == null) {
                decided.put(t, "blocked");
                by.put(t, need.title());
                reasons.put(t, reason(t, need, attempt));
                return false;
            }
            attempt = after;
        }
        standing = attempt.standing;
        attempt.held.forEach(h -> decided.put(h, "kept"));
        decided.put(t, "accepted");
        standing.add(t);
        for (String pulled : attempt.pulled) {
            Base base = bases.get(pulled);
            decided.put(pulled, base != null && base.outcome.equals("required") ? "accepted" : "implied");
            by.put(pulled, t);
            standing.remove(pulled);
            standing.add(pulled);
        }
        return true;
    }

    /** The attempt with this need met, or null when it cannot be. */
    private @Nullable Attempt meet(String t, Need need, Attempt before) {
        String n = need.title();
        if (model.title(n).scope() != model.title(t).scope()) {
            return deviceMeets(need) ? before : null;
        }
        if ((comes(n) || before.pulled.contains(n)) && isEnough(release(n), need)) {
            return before;
        }
        Attempt pulled = pullIn(t, need, before);
        return pulled != null ? pulled : asItIs(t, need, before);
    }

    private static boolean isEnough(@Nullable Release release, Need need) {
        return release != null && (need.min() == null || release.version().compareTo(need.min()) >= 0);
    }

    private boolean isDecided(String title, Attempt attempt) {
        return decided.containsKey(title) || attempt.held.contains(title);
    }

    private boolean opposed(String n, String t, Attempt attempt) {
        return against(t, n) || attempt.standing.stream().anyMatch(s -> against(s, n))
                || attempt.pulled.stream().anyMatch(p -> against(p, n));
    }

    private @Nullable Attempt pullIn(String t, Need need, Attempt before) {
        String n = need.title();
        Base base = bases.get(n);
        String outcome = base == null ? "" : base.outcome;
        boolean free = !isDecided(n, before) && !before.pulled.contains(n)
                || "kept".equals(decided.get(n)) && outcome.equals("available") && !before.pulled.contains(n);
        boolean may = base == null || outcome.equals("required") || outcome.equals("available");
        boolean seated = model.title(n).seats() == null || outcome.equals("required");
        if (!free || !may || !seated || !isEnough(release(n), need) || opposed(n, t, before)) {
            return null;
        }
        Attempt attempt = before.copy();
        attempt.pulled.add(n);
        for (Need further : java.util.Objects.requireNonNull(release(n)).needs()) {
            attempt = meet(t, further, attempt);
            if (attempt == null) {
                return null;
            }
        }
        return attempt;
    }

    private @Nullable Attempt asItIs(String t, Need need, Attempt before) {
        String n = need.title();
        Present present = model.present(unit, n);
        if (present == null || need.min() != null
                && (present.version() == null || present.version().compareTo(need.min()) < 0)) {
            return null;
        }
        if (before.standing.contains(n) && !comes(n)) {
            return before;
        }
        Base base = bases.get(n);
        if (isDecided(n, before) || before.pulled.contains(n) || opposed(n, t, before)
                || base != null && (base.outcome.equals("uninstall") || base.outcome.equals("required"))) {
            return null;
        }
        Attempt attempt = before.copy();
        attempt.held.add(n);
        attempt.standing.add(n);
        return attempt;
    }

    private String reason(String t, Need need, Attempt attempt) {
        String n = need.title();
        if (model.title(n).scope() != model.title(t).scope()) {
            return "needs-device";
        }
        Base base = bases.get(n);
        String outcome = base == null ? "" : base.outcome;
        Map<String, Boolean> reasons = new LinkedHashMap<>();
        reasons.put("needs-removed", outcome.equals("uninstall"));
        reasons.put("needs-contested", outcome.equals("contested"));
        reasons.put("needs-later", outcome.equals("later"));
        reasons.put("needs-unfit", outcome.equals("unfit") || outcome.equals("blocked")
                || base == null && release(n) == null);
        reasons.put("needs-seat", outcome.equals("waiting")
                || model.title(n).seats() != null && !outcome.equals("required"));
        reasons.put("needs-replaced", "replaced".equals(decided.get(n)) || replaces(t, n)
                || attempt.pulled.stream().anyMatch(p -> replaces(p, n))
                || attempt.standing.stream().anyMatch(s -> comes(s) && replaces(s, n)));
        reasons.put("needs-displaced", "displaced".equals(decided.get(n)) || opposed(n, t, attempt));
        reasons.put("needs-newer", !isEnough(release(n), need));
        return reasons.entrySet().stream().filter(Map.Entry::getValue).map(Map.Entry::getKey).findFirst()
                .orElse("needs-blocked");
    }

    /** The end of section 7: the need of a user title for a device title. */
    private boolean deviceMeets(Need need) {
        Unit device = new Unit(unit.device(), null);
        String row = model.row(device, need.title());
        String outcome = row == null ? "" : row.split(",", -1)[0];
        if (outcome.equals("required")) {
            Version version = Version.of(java.util.Objects.requireNonNull(row).split(",", -1)[1]);
            return need.min() == null || version.compareTo(need.min()) >= 0;
        }
        Present present = model.present(device, need.title());
        boolean enough = present != null && (need.min() == null
                || present.version() != null && present.version().compareTo(need.min()) >= 0);
        return enough && Set.of("", "available", "contested", "later", "unfit", "blocked", "waiting").contains(outcome);
    }

    private void write(Title title) {
        String t = title.id();
        Base base = bases.get(t);
        List<Assignment> deciding = base == null ? List.of() : base.deciding;
        String state = decided.getOrDefault(t, "");
        switch (state) {
            case "implied" -> {
                Release release = java.util.Objects.requireNonNull(release(t));
                model.write(unit, title, "required", release, model.variant(release, unit.device()), deciding, "implied",
                        by.get(t));
            }
            case "replaced", "displaced" -> model.write(unit, title, state, null, null, deciding, "", by.get(t));
            case "blocked" -> model.write(unit, title, state, null, null, deciding, reasons.get(t), by.get(t));
            default -> {
                if (base != null) {
                    model.write(unit, title, base.outcome, base.release, base.variant, deciding, base.reason, "");
                } else if (!standing.contains(t)) {
                    leftBehind(title);
                }
            }
        }
    }

    /** Section 8. */
    private void leftBehind(Title title) {
        Present present = model.present(unit, title.id());
        if (present == null) {
            return;
        }
        String replacing = standing.stream().filter(s -> comes(s) && replaces(s, title.id())).findFirst().orElse(null);
        String conflicting = standing.stream().filter(s -> comes(s) && conflict(s, title.id())).findFirst().orElse(null);
        Assignment leaving = model.leaving(present);
        if (replacing != null) {
            model.write(unit, title, "replaced", null, null, List.of(), "", replacing);
        } else if (conflicting != null) {
            model.write(unit, title, "displaced", null, null, List.of(), "", conflicting);
        } else if (leaving != null) {
            model.write(unit, title, "uninstall", null, null, List.of(leaving), "left", "");
        }
    }
}
