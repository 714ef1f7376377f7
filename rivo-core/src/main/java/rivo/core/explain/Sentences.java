package rivo.core.explain;

import java.util.EnumSet;
import java.util.List;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.GoneReference;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.estate.User;
import rivo.core.resolve.Decision;
import rivo.core.resolve.LadderStep;
import rivo.core.resolve.Rank;
import rivo.core.resolve.Reason;
import rivo.core.rule.Clause;

/** Puts trails into words, as seen from one OU. */
final class Sentences {

    private static final Set<Verdict.Kind> HAVE_NO_SAY = EnumSet.of(Verdict.Kind.NO_REACH, Verdict.Kind.RESTS, Verdict.Kind.NOT_LIVE);

    private final Estate estate;
    private final int ou;

    Sentences(Estate estate, int ou) {
        this.estate = estate;
        this.ou = ou;
    }

    String rung(Rung rung, Rung deciding) {
        Verdict verdict = rung.verdict();
        return switch (verdict.kind()) {
            case DECIDES -> decides(rung);
            case DISAGREES -> "level with an assignment that wants the opposite; left as it is";
            case AGREES -> agrees(rung, ((Verdict.Agrees) verdict).winner());
            case WEAKER -> "weaker: " + weaker(rung, (Verdict.Weaker) verdict, deciding);
            case LATER -> later((Verdict.Later) verdict);
            case STOPPED -> "stopped by the fence at " + ((Verdict.StoppedByFence) verdict).fence().name()
                    + "; it is not binding";
            case EXCLUDED -> excluded((Verdict.Excluded) verdict);
            case NARROWED_OUT -> narrowed((Verdict.NarrowedOut) verdict);
            case OUTSIDE_BASE -> "has effect only below " + ((Verdict.OutsideBase) verdict).base().name();
            case RESTS -> "rests: " + goneName(((Verdict.Rests) verdict).gone()) + " has left the directory";
            case NO_REACH -> "does not reach here";
            case NOT_LIVE -> notLive(rung.assignment(), ((Verdict.NotLive) verdict).why());
        };
    }

    private String decides(Rung rung) {
        String where = where(rung);
        if (rung.rank().binding()) {
            return "binding from " + where;
        }
        return rung.target().kind() == Target.Kind.OU ? "nearest OU that assigns this title, " + where
                : "nearest that assigns this title, " + where;
    }

    private static String agrees(Rung rung, Assignment winner) {
        return rung.assignment().intent() == winner.intent()
                ? "level with the deciding one, same intent, but newer"
                : "level with the deciding one, whose intent is stronger";
    }

    private String weaker(Rung rung, Verdict.Weaker weaker, Rung deciding) {
        LadderStep step = weaker.step();
        return switch (step) {
            case BINDING -> "it is not binding, the deciding one is";
            case NEARNESS -> where(rung) + (rung.rank().binding() ? ", the deciding one is binding, from farther up"
                    : ", the deciding one is nearer");
            case SIDE -> "it follows the person, the deciding one follows the device";
            case PRIORITY -> "its priority is " + rung.rank().priority() + ", the deciding one's is "
                    + deciding.rank().priority();
        };
    }

    private static String later(Verdict.Later later) {
        return "later: wave " + later.wave() + " of " + later.of() + " is not open yet";
    }

    private String excluded(Verdict.Excluded excluded) {
        return "excluded by " + words(excluded.by()) + through(excluded.chain()) + (estate.gone().containsKey(excluded.by())
                ? ", which has left the directory and still excludes its last members" : "");
    }

    private static String narrowed(Verdict.NarrowedOut narrowed) {
        String failing = failing(narrowed.clauses());
        return failing.isEmpty() ? "narrowed to devices where " + narrowed.rule() : "narrowed out: " + failing;
    }

    /** The clauses that do not hold, each with the fact it saw. */
    private static String failing(List<Clause> clauses) {
        return clauses.stream().filter(c -> !c.holds()).map(c -> c.words() + (c.seen().isEmpty() ? ", not reported"
                : ", has " + String.join(", ", c.seen()))).collect(Collectors.joining("; "));
    }

    private static String notLive(Assignment assignment, Verdict.NotLive.Why why) {
        return switch (why) {
            case PAUSED -> "paused";
            case RETIRED -> "ended";
            case NOT_STARTED -> "starts at " + assignment.from();
        };
    }

    /** How near the target is, seen from here. */
    private String where(Rung rung) {
        Rank rank = rung.rank();
        if (rank.nearness() == Rank.NAMES) {
            return "by name";
        }
        if (rank.nearness() == Rank.LISTS) {
            return "through " + words(rung.target()) + through(rung.chain());
        }
        if (rung.target().kind() == Target.Kind.OU) {
            int up = estate.ous().depth(ou) - estate.ous().depth(estate.ous().position(rung.target().id()));
            return up <= 0 ? rung.person().isEmpty() ? "right here" : "at the person's OU"
                    : up == 1 ? "1 level up" : up + " levels up";
        }
        return words(rung.target());
    }

    private static String through(List<Group> chain) {
        return chain.size() < 2 ? "" : ", by way of " + chain.stream().skip(1).map(Sentences::name)
                .collect(Collectors.joining(", "));
    }

    private static String name(Group group) {
        return group.name().isEmpty() ? group.id() : group.name();
    }

    /** A target as people speak of it. */
    String words(Target target) {
        GoneReference gone = estate.gone().get(target);
        return gone != null ? goneName(gone) : switch (target.kind()) {
            case ALL_DEVICES -> "all devices";
            case ALL_USERS -> "all people";
            case OU -> {
                Ou found = estate.ous().find(target.id());
                yield found == null ? target.id() : found.name();
            }
            case GROUP -> {
                Group found = estate.groups().get(target.id());
                yield "the group " + (found == null ? target.id() : name(found));
            }
            case COLLECTION -> {
                DeviceCollection found = estate.collections().get(target.id());
                yield "the collection " + (found == null || found.name().isEmpty() ? target.id() : found.name());
            }
            case DEVICE -> {
                Device found = estate.devices().find(target.id());
                yield found == null || found.name().isEmpty() ? target.id() : found.name();
            }
            case USER -> {
                User found = estate.users().find(target.id());
                yield found == null || found.fullName().isEmpty() ? target.id() : found.fullName();
            }
        };
    }

    private static String goneName(GoneReference gone) {
        return (gone.target().kind() == Target.Kind.GROUP ? "the group " : "") + (gone.name().isEmpty() ? gone.target().id() : gone.name());
    }

    String whole(Trail trail) {
        Decision decision = trail.decision().orElse(null);
        if (decision == null) {
            return nothing(trail);
        }
        String because = because(trail);
        return switch (decision.outcome()) {
            case REQUIRED -> required(decision, because);
            case AVAILABLE -> "Offered, because " + because + ".";
            case UNINSTALL -> decision.reason() == Reason.LEFT ? left(decision) : "Removed, because " + because + ".";
            case CONTESTED -> "Contested: " + decision.deciding().size()
                    + " level assignments disagree. It is left as it is until somebody decides.";
            case LATER -> laterWhole(trail);
            case UNFIT -> unfit(trail);
            case BLOCKED -> blocked(trail, decision);
            case REPLACED -> "Replaced: " + name(decision.by()) + " takes its place" + ofOther(trail) + ".";
            case DISPLACED -> "Kept off: " + name(decision.by()) + " conflicts with it" + ofOther(trail) + ".";
            case WAITING -> "Waiting for a seat: all " + trail.title().seats() + " of " + name(trail.title())
                    + " are in use, though " + because + ".";
        };
    }

    private String required(Decision decision, String because) {
        if (decision.reason() == Reason.IMPLIED) {
            return "Required, because " + name(decision.by()) + " needs it.";
        }
        return decision.reason() == Reason.REQUESTED ? "Required, because it was asked for: it is offered, since "
                + because + "." : "Required, because " + because + ".";
    }

    private static String left(Decision decision) {
        return "Removed, because " + Objects.requireNonNull(decision.winner()).id()
                + " put it on, no longer reaches here, and removes what it leaves.";
    }

    /** What the newest release that might have been chosen asks for. */
    private static String unfit(Trail trail) {
        for (ReleaseLook look : trail.releases()) {
            String needs = look.variants().stream().map(v -> failing(v.clauses())).filter(text -> !text.isEmpty())
                    .collect(Collectors.joining("; or "));
            if (look.kind() == ReleaseLook.Kind.DOES_NOT_FIT && !needs.isEmpty()) {
                return "Does not fit: " + look.release().version() + " needs " + needs + ".";
            }
        }
        return "Does not fit: no release of " + name(trail.title()) + " is offered that fits this device.";
    }

    private static String laterWhole(Trail trail) {
        Rung rung = trail.deciding();
        return rung != null && rung.verdict() instanceof Verdict.Later later ? "Later: wave " + later.wave() + " of "
                + later.of() + " of " + rung.assignment().id() + " is not open yet." : "Later.";
    }

    private String blocked(Trail trail, Decision decision) {
        Reason reason = Objects.requireNonNull(decision.reason());
        String title = name(decision.by());
        String why = switch (reason) {
            case NO_RELEASE -> "the release " + Objects.requireNonNull(decision.winner()).pin()
                    + " that it is held to is not offered";
            case NEEDS_REMOVED -> "it needs " + title + ", which is to be removed";
            case NEEDS_CONTESTED -> "it needs " + title + ", which is contested";
            case NEEDS_LATER -> "it needs " + title + ", whose wave is not open yet";
            case NEEDS_UNFIT -> "it needs " + title + ", of which no release fits this device";
            case NEEDS_SEAT -> "it needs " + title + ", which has no seat here";
            case NEEDS_REPLACED -> "it needs " + title + ", which is replaced";
            case NEEDS_DISPLACED -> "it needs " + title + ", which is kept off";
            case NEEDS_NEWER -> "it needs a newer " + title + " than the one chosen";
            case NEEDS_BLOCKED -> "it needs " + title + ", which is blocked itself";
            case NEEDS_DEVICE -> "it needs " + title + " on the device, which does not get it";
            case ASSIGNED, REQUESTED, IMPLIED, LEFT -> throw new IllegalStateException("no reason to block");
        };
        return "Blocked: " + why + ".";
    }

    private String name(@Nullable String title) {
        Title found = title == null ? null : estate.title(title);
        return found == null ? String.valueOf(title) : name(found);
    }

    private static String name(Title title) {
        return title.name().isEmpty() ? title.id() : title.name();
    }

    /** Who asked for the title that decided. */
    private String ofOther(Trail trail) {
        Trail other = trail.other();
        Rung rung = other == null ? null : other.deciding();
        return rung == null ? "" : ", " + verb(rung.assignment()) + " by " + rung.assignment().id() + " "
                + at(rung.target());
    }

    private String at(Target target) {
        return (target.kind() == Target.Kind.OU ? "at " : "for ") + words(target);
    }

    private static String verb(Assignment assignment) {
        return switch (assignment.intent()) {
            case REQUIRED -> "required";
            case AVAILABLE -> "offered";
            case UNINSTALL -> "removed";
        };
    }

    private String because(Trail trail) {
        Rung rung = trail.deciding();
        if (rung == null) {
            return "an assignment says so";
        }
        return rung.rank().binding() ? "a binding assignment " + at(rung.target()) + " says so"
                : "the nearest assignment that reaches here, " + at(rung.target()) + ", says so";
    }

    private String nothing(Trail trail) {
        for (Rung rung : trail.rungs()) {
            if (!HAVE_NO_SAY.contains(rung.verdict().kind())) {
                String what = switch (rung.assignment().intent()) {
                    case REQUIRED -> "requires";
                    case AVAILABLE -> "offers";
                    case UNINSTALL -> "removes";
                };
                Ou fence = rung.verdict().fence();
                return "Nothing: " + words(rung.target()) + " " + what + " it, but " + (fence != null ? "the fence at "
                        + fence.name() + " stops that" : "that is " + rung(rung, rung)) + ".";
            }
        }
        return "Nothing: no assignment of " + name(trail.title()) + " reaches here.";
    }
}
