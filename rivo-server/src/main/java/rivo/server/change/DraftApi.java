package rivo.server.change;

import io.swagger.v3.oas.annotations.media.Schema;
import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import rivo.core.audience.Positions;
import rivo.core.estate.Assignment;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.GoneReference;
import rivo.core.estate.Kit;
import rivo.core.estate.Ou;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Subject;
import rivo.core.estate.Target;
import rivo.core.estate.Title;
import rivo.core.rehearse.TitleDifference;
import rivo.core.resolve.Resolver;
import rivo.server.change.DraftRehearsal.Rehearsed;
import rivo.server.estate.WorkingEstate;
import rivo.server.web.Page;

/** The draft of whoever is signed in, with its rehearsal. */
@RestController
@RequestMapping("/api/draft")
class DraftApi {

    /**
     * @param rehearsal absent for an empty draft, and where the draft has become impossible
     * @param trouble why the draft cannot be published as it is; absent when it can
     * @param cautions what is not well with the releases that it would put on
     */
    record DraftView(List<EditView> edits, @Nullable RehearsalView rehearsal, @Nullable String trouble,
            List<Cautions.Caution> cautions) {
    }

    /**
     * @param subject title:ID or kit:ID
     * @param name of the title or kit
     * @param was the intent of what is assigned there now; absent when nothing is
     * @param ouName absent when the OU has gone
     * @param choices what it fixes, by the ids of the choices
     */
    record EditView(String subject, String name, String ou, @Nullable String ouName,
            @Schema(allowableValues = {"required", "uninstall", "none"}) String intent, boolean binding,
            Map<String, String> choices, @Schema(allowableValues = {"required", "uninstall"}) @Nullable String was) {
    }

    /** @param token stands for what was looked at; publishing asks for it */
    record RehearsalView(int devices, int gains, int loses, int removes, int removesPresent, int newlyContested,
            int settled, long bytes, String token, List<TitleRehearsalView> titles) {
    }

    /** The same figures for one title. */
    record TitleRehearsalView(String title, String titleName, int gains, int loses, int removes, int removesPresent,
            int newlyContested, int settled, long bytes) {
    }

    /** One device that a figure counts. */
    record CountedDevice(String id, String name, String ou, String title, String titleName) {
    }

    /** @param total how many there are in all; the list holds the asked part of them */
    record CountedDevices(int total, List<CountedDevice> devices) {
    }

    /** Why a change is made, and the token of the rehearsal that was looked at. */
    record Publication(String reason, String token) {
    }

    private static final int MOST_COUNTED = 10_000;

    private final Drafts drafts;
    private final DraftRehearsal rehearsals;
    private final Publishing publishing;
    private final Cautions cautions;
    private final WorkingEstate working;

    DraftApi(Drafts drafts, DraftRehearsal rehearsals, Publishing publishing, Cautions cautions,
            WorkingEstate working) {
        this.drafts = drafts;
        this.rehearsals = rehearsals;
        this.publishing = publishing;
        this.cautions = cautions;
        this.working = working;
    }

    @GetMapping
    DraftView draft(Principal who) {
        Resolver now = working.resolver();
        Estate estate = now.estate();
        List<DraftEdit> edits = drafts.edits(who.getName());
        List<EditView> views = edits.stream().map(edit -> view(estate, edit)).toList();
        if (edits.isEmpty()) {
            return new DraftView(views, null, null, List.of());
        }
        try {
            Rehearsed rehearsed = rehearsals.rehearse(now, edits);
            List<Problem> unaccepted = cautions.unaccepted(edits, rehearsed.rehearsal());
            return new DraftView(views, view(edits, rehearsed), unaccepted.isEmpty() ? null
                    : new RefusedException(unaccepted).getMessage(), cautions.of(edits, rehearsed.rehearsal()));
        } catch (RefusedException e) {
            return new DraftView(views, null, e.getMessage(), List.of());
        }
    }

    @PutMapping("/edits")
    DraftView put(@RequestBody DraftEdit edit, Principal who) {
        drafts.put(who.getName(), edit);
        return draft(who);
    }

    @DeleteMapping("/edits")
    DraftView remove(@RequestParam String subject, @RequestParam String ou, Principal who) {
        drafts.remove(who.getName(), subject, ou);
        return draft(who);
    }

    @DeleteMapping
    DraftView clear(Principal who) {
        drafts.clear(who.getName());
        return draft(who);
    }

    @PostMapping("/publication")
    Publishing.Published publish(@RequestBody Publication publication, Principal who) {
        return publishing.publish(who.getName(), publication.reason(), publication.token());
    }

    /** @param part gains, loses, removes, contested or settled */
    @GetMapping("/rehearsal/{part}")
    CountedDevices counted(@PathVariable String part, @RequestParam(defaultValue = "0") int offset,
            @RequestParam(defaultValue = "200") int limit, Principal who) {
        Page page = Page.of(offset, limit, MOST_COUNTED);
        Rehearsed rehearsal = rehearsals.rehearse(working.resolver(), drafts.edits(who.getName()));
        Estate estate = rehearsal.after().estate();
        List<CountedDevice> all = new ArrayList<>();
        int total = 0;
        for (TitleDifference difference : rehearsal.titles()) {
            Positions devices = part(part).of(difference);
            total += devices.size();
            devices.stream().limit(page.end()).forEach(
                    p -> all.add(counted(estate, rehearsal.after().audiences().device(p, difference.title().scope()), difference.title())));
        }
        return new CountedDevices(total, page.of(all));
    }

    private static DraftRehearsal.Part part(String word) {
        try {
            return DraftRehearsal.Part.valueOf(word.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw new RefusedException("bad-part", "part",
                    "There is no part " + word + "; use gains, loses, removes, contested or settled.");
        }
    }

    private static CountedDevice counted(Estate estate, Device device, Title title) {
        return new CountedDevice(device.id(), device.name(),
                estate.ous().at(estate.ous().position(device.ou())).name(), title.id(), title.name());
    }

    private static EditView view(Estate estate, DraftEdit edit) {
        Ou ou = estate.ous().find(edit.ou());
        GoneReference gone = estate.gone().get(Target.ou(edit.ou()));
        String was = Edits.held(estate, edit).stream().map(Assignment::intent).findFirst().map(intent -> intent.word())
                .orElse(null);
        return new EditView(edit.subject(), name(estate, edit.about()), edit.ou(), ou != null ? ou.name() : gone != null ? gone.name() : null,
                edit.intent(), edit.binding(), edit.fixes(), was);
    }

    private static String name(Estate estate, Subject about) {
        Title title = about.kit() ? null : estate.title(about.id());
        Kit kit = about.kit() ? estate.kits().get(about.id()) : null;
        return title != null ? title.name() : kit != null ? kit.name() : about.id();
    }

    private RehearsalView view(List<DraftEdit> edits, Rehearsed rehearsal) {
        List<TitleRehearsalView> titles = rehearsal.titles().stream()
                .map(d -> new TitleRehearsalView(d.title().id(), d.title().name(), d.gains().size(),
                        d.loses().size(), d.removes().size(), d.removesPresent(rehearsal.after().audiences()).size(), d.newlyContested().size(),
                        d.settled().size(), rehearsals.bytes(rehearsal, d)))
                .toList();
        return new RehearsalView(rehearsal.devices(), sum(titles, TitleRehearsalView::gains),
                sum(titles, TitleRehearsalView::loses), sum(titles, TitleRehearsalView::removes),
                sum(titles, TitleRehearsalView::removesPresent), sum(titles, TitleRehearsalView::newlyContested),
                sum(titles, TitleRehearsalView::settled),
                titles.stream().mapToLong(TitleRehearsalView::bytes).sum(), RehearsalToken.of(edits, rehearsal),
                titles);
    }

    private static int sum(List<TitleRehearsalView> titles, java.util.function.ToIntFunction<TitleRehearsalView> of) {
        return titles.stream().mapToInt(of).sum();
    }
}
