package rivo.server.membership;

import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.core.audience.Audiences;
import rivo.core.estate.Device;
import rivo.core.estate.DeviceCollection;
import rivo.core.estate.Estate;
import rivo.core.estate.Group;
import rivo.core.estate.Ou;
import rivo.core.estate.Target;
import rivo.core.rule.Clause;
import rivo.core.rule.Rule;
import rivo.core.rule.RuleOutline;
import rivo.server.audience.Names;

/**
 * Whether a device or a person is in an audience, and how. Pure functions.
 *
 * @param in whether it is
 * @param sentence the whole answer
 * @param ways for a group each way in which it belongs: the groups from the one that is asked about down to the one that lists it
 * @param clauses for a collection what each clause of its rule says, with the fact it saw
 */
record Membership(boolean in, String sentence, List<List<String>> ways, List<ClauseView> clauses) {

    /**
     * @param holds whether the device satisfies the clause by itself
     * @param good whether that speaks for the device: a clause below "none of" had better not hold
     * @param seen what the device reports; empty where it reports nothing of it
     */
    record ClauseView(String words, boolean holds, boolean good, List<String> seen) {
    }

    static Membership of(AudienceLook audience, Target member) {
        Audiences audiences = audience.audiences();
        String who = Names.of(audiences.estate(), member);
        return switch (audience.target().kind()) {
            case ALL_DEVICES -> plain(member.kind() == Target.Kind.DEVICE, "Yes: it is a device.", "No: a person is no device.");
            case ALL_USERS -> plain(member.kind() == Target.Kind.USER, "Yes: everybody in the directory is.", "No: a device is no person.");
            case OU -> ou(audience, member, who);
            case GROUP -> group(audience, member, who);
            case COLLECTION -> collection(audience, member, who);
            case DEVICE, USER -> plain(audience.target().equals(member), "Yes: it is the very same.", "No: it is another.");
        };
    }

    private static Membership plain(boolean in, String yes, String no) {
        return new Membership(in, in ? yes : no, List.of(), List.of());
    }

    private static Membership ou(AudienceLook audience, Target member, String who) {
        Estate estate = audience.audiences().estate();
        Ou asked = audience.ou();
        String stands = member.kind() == Target.Kind.DEVICE ? Objects.requireNonNull(estate.devices().find(member.id())).ou()
                : Objects.requireNonNull(estate.users().find(member.id())).ou();
        if (asked == null) {
            return plain(false, "", "No: the OU has left the directory, and holds nobody until it is back.");
        }
        int at = estate.ous().position(stands);
        boolean in = estate.ous().isAtOrBelow(at, estate.ous().position(asked.id()));
        String path = Names.where(estate, stands);
        return plain(in, "Yes: " + who + (stands == null ? " is outside every OU, which is below " + asked.name() + " only." : " is in " + path + ".")
                , "No: " + who + " is " + (stands == null ? "outside every OU." : "in " + path + ", which is not " + asked.name() + " or below it."));
    }

    private static Membership group(AudienceLook audience, Target member, String who) {
        Audiences audiences = audience.audiences();
        if (audience.isGone()) {
            return plain(false, "", "No: the group has left the directory, and holds nobody until it is back.");
        }
        List<List<Group>> ways = audiences.ways(audience.target().id(), member);
        if (ways.isEmpty()) {
            List<String> others = audiences.groupsHolding(member).stream().limit(6).map(id -> Names.of(audiences.estate(), Target.group(id))).toList();
            return plain(false, "", "No: neither " + audience.name() + " nor a group in it lists " + who + "." + (others.isEmpty()
                    ? " No group does." : " It is in " + String.join(", ", others) + "."));
        }
        String sentence = (ways.size() == 1 ? "Yes. " : "Yes, by " + ways.size() + " ways. ")
                + ways.stream().map(way -> way(way, who)).collect(Collectors.joining(" And "));
        return new Membership(true, sentence, ways.stream().map(way -> way.stream().map(Names::of).toList()).toList(), List.of());
    }

    /** "It is listed in reception-loans, which is in loan-pool." */
    private static String way(List<Group> way, String who) {
        StringBuilder words = new StringBuilder(who + " is listed in " + Names.of(way.get(way.size() - 1)));
        for (int i = way.size() - 2; i >= 0; i--) {
            words.append(", which is in ").append(Names.of(way.get(i)));
        }
        return words.append('.').toString();
    }

    private static Membership collection(AudienceLook audience, Target member, String who) {
        Estate estate = audience.audiences().estate();
        DeviceCollection collection = Objects.requireNonNull(audience.collection());
        if (member.kind() != Target.Kind.DEVICE) {
            return plain(false, "", "No: a collection holds devices only.");
        }
        Device device = Objects.requireNonNull(estate.devices().find(member.id()));
        int position = estate.devices().position(device.id());
        boolean in = audience.audiences().devicesIn(audience.target()).contains(position);
        RuleOutline outline = collection.rule() == null ? null : RuleOutline.of(Rule.parse(collection.rule()));
        List<ClauseView> views = outline == null ? List.of() : clauses(audience.audiences(), outline, position, false);
        return new Membership(in, sentence(audience, collection, device, in, outline, who), List.of(), views);
    }

    /** The clauses of a part of a rule, as they are written. @param negated whether an odd number of "none of" stands above it */
    private static List<ClauseView> clauses(Audiences audiences, RuleOutline part, int device, boolean negated) {
        return switch (part.kind()) {
            case ALL, ANY -> part.parts().stream().flatMap(one -> clauses(audiences, one, device, negated).stream()).toList();
            case NONE -> part.parts().stream().flatMap(one -> clauses(audiences, one, device, !negated).stream()).toList();
            case SOME, HAS, CLAUSE -> {
                Clause clause = audiences.trying().clauses(part.condition(), device).get(0);
                boolean notEqual = part.operator().equals("ne");
                boolean holds = clause.holds() != notEqual;
                yield List.of(new ClauseView(notEqual ? clause.words().replaceFirst(" eq ", " ne ") : clause.words(), holds, holds != negated,
                        clause.seen()));
            }
        };
    }

    private static String sentence(AudienceLook audience, DeviceCollection collection, Device device, boolean in,
            @Nullable RuleOutline outline, String who) {
        Estate estate = audience.audiences().estate();
        if (in) {
            return collection.include().contains(device.id()) ? "Yes: " + who + " is put in by hand." : "Yes: " + who + " satisfies the rule.";
        }
        if (collection.base() != null && estate.gone().containsKey(Target.ou(collection.base()))) {
            return "No: the OU that the collection looks below has left the directory.";
        }
        if (collection.exclude().contains(device.id())) {
            return "No: " + who + " is left out by hand.";
        }
        int base = estate.ous().position(collection.base());
        if (!estate.ous().isAtOrBelow(estate.ous().position(device.ou()), base)) {
            return "No: " + who + " is not below " + estate.ous().at(base).name() + ", where the collection looks.";
        }
        if (outline == null) {
            return "No: " + who + " is not among the devices that are picked by hand.";
        }
        String failing = failing(audience.audiences(), outline, estate.devices().position(device.id()));
        return "No: " + who + " does not satisfy the rule" + (failing.isEmpty() ? "." : ": " + failing + ".");
    }

    /** Why a device does not satisfy the rule of a collection, in words; empty where it does, or there is none. */
    static String failing(Audiences audiences, DeviceCollection collection, int device) {
        return collection.rule() == null ? "" : failing(audiences, RuleOutline.of(Rule.parse(collection.rule())), device);
    }

    /** Of the parts that all have to hold the first that does not, in words: its first clause that speaks against the device. */
    private static String failing(Audiences audiences, RuleOutline outline, int device) {
        List<RuleOutline> parts = outline.kind() == RuleOutline.Kind.ALL ? outline.parts() : List.of(outline);
        for (RuleOutline part : parts) {
            if (!audiences.trying().holds(part.condition(), device)) {
                return clauses(audiences, part, device, false).stream().filter(clause -> !clause.good()).findFirst().map(clause -> (clause.holds()
                        ? "it has " : "it asks for ") + clause.words() + (clause.seen().isEmpty() ? ", and nothing is reported of that"
                                : clause.holds() ? " (" + String.join(", ", clause.seen()) + ")" : ", and it has " + String.join(", ", clause.seen())))
                        .orElse("");
            }
        }
        return "";
    }
}
