package rivo.server.demo;

import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Assignment;
import rivo.core.estate.Follows;
import rivo.core.estate.Group;
import rivo.core.estate.Intent;
import rivo.core.estate.Ou;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Version;
import rivo.core.estate.Wave;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.assignment.Delivery;
import rivo.server.assignment.Rollout;
import rivo.server.audience.CollectionDocument;
import rivo.server.change.Drafts;
import rivo.server.change.Publishing;
import rivo.server.estate.CurrentSnapshot;

/**
 * The demo's collections, and what is assigned to groups, collections and people: an offer that drains its collection, groups that disagree, a
 * rollout in waves, a release that is held, an exclusion, what follows people onto their devices.
 */
final class DemoAudiences {

    private static final String WHO = DemoOrganisation.ADMINISTRATOR;

    private final CurrentSnapshot current;
    private final Drafts drafts;
    private final Publishing publishing;

    DemoAudiences(CurrentSnapshot current, Drafts drafts, Publishing publishing) {
        this.current = current;
        this.drafts = drafts;
        this.publishing = publishing;
    }

    void publish() {
        collection("lab-without-viewer", "Lab PCs without the viewer", ou("Laboratories"), "not (software[name eq \"Tarnlog Viewer\"])");
        collection("field-tablets", "Field tablets, 8 GiB or more", null, "chassis eq \"tablet\" and ramGiB ge 8");
        collection("not-seen", "Not seen for 14 days", null, "lastSeen lt \"-P14D\"");
        collection("pilot-devices", "Pilot devices", null, "group eq \"pilot-first\" and not (collection eq \"Not seen for 14 days\")");
        collection("below-22000", "Windows PCs below 10.0.22000", null, "os.family eq \"windows\" and os.version lt \"10.0.22000\"");
        publish("Collections by what devices report");
        put(assignment("offer-tarnlog", "tarnlog", Intent.AVAILABLE, Target.collection("lab-without-viewer")));
        put(assignment("offer-otterlink", "otterlink", Intent.AVAILABLE, group("duty-engineers")).withFollows(Follows.USER));
        put(assignment("pilot-siltscope", "siltscope", Intent.AVAILABLE, group("pilot-first")));
        put(assignment("offer-brookmap", "brookmap", Intent.AVAILABLE, Target.ou(ou("Laboratories"))));
        put(assignment("offer-fernote", "fernote", Intent.AVAILABLE, Target.ou(ou("Laboratories"))));
        put(assignment("offer-probewire", "probewire", Intent.AVAILABLE, Target.ou(ou("Laboratories"))));
        put(assignment("offer-valvewright", "valvewright", Intent.AVAILABLE, Target.ou(ou("Laboratories"))));
        publish("Offers: the viewer in the laboratories, the tunnel for whoever is on duty, a first look for the pilot devices");
        put(assignment("tablets-kingfisher", "kingfisher", Intent.REQUIRED, group("crew-tablets"))
                .withExclude(List.of(Target.collection("not-seen"))));
        put(assignment("pilot-kingfisher", "kingfisher", Intent.UNINSTALL, group("pilot-first")));
        publish("Meter readers for the tablets, not for the pilot devices");
        put(assignment("ledgerfen-waves", "ledgerfen", Intent.REQUIRED, Target.ou(ou("Contact centre"))).withWaves(List.of(
                Wave.to(List.of(Target.collection("pilot-devices")), true), Wave.share(25, false),
                Wave.to(List.of(), false))), Delivery.AS_USUAL.withRollout(new Rollout(false, new Rollout.Opens(null, "P1D", 90, 10),
                        new Rollout.Stops(25, 10), null)));
        publish("Ledgerfen for the contact centre, the pilot devices first");
        put(assignment("vans-brookmap", "brookmap", Intent.REQUIRED, Target.ou(ou("Mobile laboratory vans"))).withPin(Version.of("2.8")));
        publish("The vans stay with Brookmap 2.8 until their maps are converted");
        put(assignment("analysts-dosecalc", "dosecalc", Intent.REQUIRED, group("lab-analysts")).withFollows(Follows.USER));
        put(assignment("loans-dosecalc", "dosecalc", Intent.UNINSTALL, group("loan-pool")));
        publish("Dosecalc follows the analysts, and comes off what is lent out");
        shiftBoard();
    }

    /** People are there by day, when no window is open. */
    private void shiftBoard() {
        List<Target> controlRooms = current.now().estate().ous().all().stream().filter(ou -> ou.name().equals("Control room")).map(Ou::id)
                .map(Target::ou).toList();
        put(assignment("shift-board", "shift-board", Intent.REQUIRED, controlRooms.get(0)).withInclude(controlRooms),
                new Delivery(null, "ignore", null, Map.of(), null, false, null));
        publish("The shift board for whoever is on duty");
    }

    private void collection(String id, String name, @Nullable String base, String rule) {
        drafts.put(WHO, CollectionDocument.KIND, new CollectionDocument(id, name, base, rule, List.of(), List.of()));
    }

    private static Assignment assignment(String id, String title, Intent intent, Target target) {
        return Assignment.of(id, 0, Subject.title(title), intent, List.of(target));
    }

    private void put(Assignment assignment) {
        put(assignment, Delivery.AS_USUAL);
    }

    private void put(Assignment assignment, Delivery delivery) {
        drafts.put(WHO, AssignmentDocument.KIND, AssignmentDocument.of(assignment, delivery));
    }

    private void publish(String reason) {
        publishing.publish(WHO, reason, publishing.token(WHO));
    }

    private Target group(String name) {
        return current.now().estate().groups().values().stream().filter(group -> group.name().equals(name)).map(Group::id).map(Target::group)
                .findFirst().orElseThrow(() -> new IllegalStateException("the demo directory lacks the group " + name));
    }

    private String ou(String name) {
        return current.now().estate().ous().all().stream().filter(ou -> ou.name().equals(name)).map(Ou::id).findFirst()
                .orElseThrow(() -> new IllegalStateException("the demo directory lacks " + name));
    }
}
