package rivo.formats.estate;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.AssignmentState;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Follows;
import rivo.core.estate.Group;
import rivo.core.estate.Intent;
import rivo.core.estate.Leaving;
import rivo.core.estate.Request;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Version;
import rivo.core.estate.Wave;

/** Reads what administrators and people asked for, and the groups and collections that they name. */
final class AssignmentReader {

    private static final Map<String, AssignmentState> STATES = CatalogueReader.words(AssignmentState.values(),
            AssignmentState::word);
    private static final Map<String, Intent> INTENTS = CatalogueReader.words(Intent.values(), Intent::word);
    private static final Map<String, Follows> SIDES = CatalogueReader.words(Follows.values(), Follows::word);
    private static final Map<String, Leaving> LEAVINGS = CatalogueReader.words(Leaving.values(), Leaving::word);
    private static final int MOST_DIGITS = 12;
    private static final BigDecimal ALL = BigDecimal.valueOf(100);

    private final JsonCursor at;
    private final Map<String, Target> targets = new HashMap<>();

    AssignmentReader(JsonCursor at) {
        this.at = at;
    }

    /** What has been read of an assignment so far. */
    private static final class SoFar {
        private @Nullable String id;
        private @Nullable Long seq;
        private @Nullable AssignmentState state = AssignmentState.ACTIVE;
        private @Nullable Subject subject;
        private @Nullable Intent intent;
        private @Nullable Follows follows;
        private final Map<String, Boolean> given = new HashMap<>();
        private List<Target> include = List.of();
        private List<Target> exclude = List.of();
        private @Nullable String within;
        private @Nullable String base;
        private boolean binding;
        private int priority = Assignment.USUAL_PRIORITY;
        private @Nullable Version pin;
        private @Nullable Instant from;
        private @Nullable Leaving leaving = Leaving.KEEP;
        private List<Wave> waves = List.of();
    }

    Assignment assignment() {
        SoFar so = new SoFar();
        at.object(key -> {
            so.given.put(key, true);
            return who(so, key) || how(so, key);
        });
        for (String key : List.of("id", "seq", "subject", "intent", "follows")) {
            at.need(so.given.get(key), key);
        }
        // Where the side could not be read, it is taken from the targets, lest they be blamed for it.
        boolean people = so.include.stream().anyMatch(t -> !t.kind().serves(Follows.DEVICE));
        Follows side = Objects.requireNonNullElse(so.follows, people ? Follows.USER : Follows.DEVICE);
        return new Assignment(Objects.requireNonNullElse(so.id, ""), Objects.requireNonNullElse(so.seq, UNREAD),
                Objects.requireNonNullElse(so.state, AssignmentState.ACTIVE),
                Objects.requireNonNullElse(so.subject, Subject.title("")),
                Objects.requireNonNullElse(so.intent, Intent.REQUIRED), side, so.include, so.exclude, so.within,
                so.base, so.binding, so.priority, so.pin, so.from, Objects.requireNonNullElse(so.leaving, Leaving.KEEP),
                so.waves);
    }

    /** Stands for a seq that could not be read. */
    static final Long UNREAD = Long.MIN_VALUE;

    private boolean who(SoFar so, String key) {
        switch (key) {
            case "id" -> so.id = at.text();
            case "seq" -> so.seq = seq();
            case "state" -> so.state = at.word(STATES);
            case "subject" -> so.subject = subject();
            case "intent" -> so.intent = at.word(INTENTS);
            case "follows" -> so.follows = at.word(SIDES);
            case "include" -> so.include = at.listOf(this::target);
            case "exclude" -> so.exclude = at.listOf(this::target);
            default -> {
                return false;
            }
        }
        return true;
    }

    private boolean how(SoFar so, String key) {
        switch (key) {
            case "within" -> so.within = at.optionalText();
            case "base" -> so.base = at.optionalText();
            case "binding" -> so.binding = at.truth();
            case "priority" -> so.priority = (int) at.whole(0, Assignment.HIGHEST_PRIORITY);
            case "release" -> so.pin = release();
            case "from" -> so.from = at.isNull() ? null : at.instant();
            case "leaving" -> so.leaving = at.word(LEAVINGS);
            case "waves" -> so.waves = at.listOf(this::wave);
            default -> {
                return false;
            }
        }
        return true;
    }

    private @Nullable Long seq() {
        int before = at.problems().size();
        long seq = at.whole(Long.MIN_VALUE + 1, Long.MAX_VALUE);
        return at.problems().size() > before ? null : (Long) seq;
    }

    private @Nullable Subject subject() {
        String text = at.text();
        Subject subject = text == null ? null : Subject.parse(text);
        if (text != null && subject == null) {
            at.problem("bad-subject", "\"" + text + "\" is no subject; write title:ID or kit:ID.");
        }
        return subject;
    }

    private Target target() {
        String text = at.text();
        if (text == null) {
            return Target.ALL_DEVICES;
        }
        Target known = targets.get(text);
        if (known == null) {
            known = Target.parse(text);
            if (known == null) {
                at.problem("bad-target", "\"" + text + "\" is no target; write all-devices, all-users, ou:ID, group:ID, "
                        + "collection:ID, device:ID or user:ID.");
                return Target.ALL_DEVICES;
            }
            known = known.kind().namesEveryone() ? known : new Target(known.kind(), at.oneId(known.id()));
            targets.put(text, known);
        }
        return known;
    }

    private @Nullable Version release() {
        String text = at.text();
        if (text == null || text.equals("newest")) {
            return null;
        }
        if (!text.startsWith("=")) {
            at.problem("bad-release", "\"" + text + "\" is no release; write newest, or = and a version.");
            return null;
        }
        return at.version(text.substring(1));
    }

    private Wave wave() {
        List<List<Target>> to = new ArrayList<>();
        BigDecimal[] share = new BigDecimal[1];
        boolean[] given = new boolean[3];
        boolean[] open = new boolean[1];
        at.object(key -> {
            switch (key) {
                case "to" -> {
                    given[0] = true;
                    to.add(at.listOf(this::target));
                }
                case "share" -> {
                    given[1] = true;
                    share[0] = share();
                }
                case "open" -> {
                    given[2] = true;
                    open[0] = at.truth();
                }
                default -> {
                    return false;
                }
            }
            return true;
        });
        if (given[0] == given[1]) {
            at.problem("bad-wave", "A wave has either \"to\" or \"share\"; give one of the two.");
        }
        if (!given[2]) {
            at.need(null, "open");
        }
        boolean byTarget = given[0] || share[0] == null;
        return new Wave(byTarget && !to.isEmpty() ? to.get(0) : List.of(), byTarget ? null : share[0], open[0]);
    }

    private @Nullable BigDecimal share() {
        BigDecimal share = at.decimal();
        if (share == null) {
            return null;
        }
        if (share.precision() > MOST_DIGITS || Math.abs(share.scale()) > MOST_DIGITS || share.signum() < 0
                || share.compareTo(ALL) > 0) {
            at.problem("bad-share", "A share is a number of percent from 0 to 100.");
            return null;
        }
        return share;
    }

    Group group() {
        String[] texts = new String[2];
        List<Target> members = new ArrayList<>();
        at.object(key -> {
            switch (key) {
                case "id" -> texts[0] = at.text();
                case "name" -> texts[1] = at.text();
                case "members" -> at.list(() -> members.add(member()));
                default -> {
                    return false;
                }
            }
            return true;
        });
        at.need(texts[0], "id");
        return new Group(Objects.requireNonNullElse(texts[0], ""), Objects.requireNonNullElse(texts[1], ""), members);
    }

    private Target member() {
        Target target = target();
        switch (target.kind()) {
            case USER, DEVICE, GROUP -> {
                return target;
            }
            case ALL_DEVICES, ALL_USERS, OU, COLLECTION -> {
                at.problem("bad-member", "\"" + target + "\" cannot be a member; name a user, a device or a group.");
                return target;
            }
        }
        throw new IllegalStateException("every kind was handled");
    }

    DeviceCollection collection() {
        String[] texts = new String[4];
        List<String> include = new ArrayList<>();
        List<String> exclude = new ArrayList<>();
        at.object(key -> {
            switch (key) {
                case "id" -> texts[0] = at.text();
                case "name" -> texts[1] = at.text();
                case "base" -> texts[2] = at.optionalText();
                case "rule" -> texts[3] = at.optionalText();
                case "include" -> include.addAll(at.listOf(at::textOrEmpty));
                case "exclude" -> exclude.addAll(at.listOf(at::textOrEmpty));
                default -> {
                    return false;
                }
            }
            return true;
        });
        at.need(texts[0], "id");
        return new DeviceCollection(Objects.requireNonNullElse(texts[0], ""), Objects.requireNonNullElse(texts[1], ""),
                texts[2], texts[3], include, exclude);
    }

    Request request() {
        String[] texts = new String[3];
        at.object(key -> {
            switch (key) {
                case "device" -> texts[0] = at.text();
                case "title" -> texts[1] = at.text();
                case "user" -> texts[2] = at.optionalText();
                default -> {
                    return false;
                }
            }
            return true;
        });
        at.need(texts[0], "device");
        at.need(texts[1], "title");
        return new Request(Objects.requireNonNullElse(texts[0], ""), Objects.requireNonNullElse(texts[1], ""), texts[2]);
    }
}
