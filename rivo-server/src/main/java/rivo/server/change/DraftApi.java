package rivo.server.change;

import java.security.Principal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
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
import rivo.core.audience.Audiences;
import rivo.core.audience.UnitSet;
import rivo.core.estate.Device;
import rivo.core.estate.Estate;
import rivo.core.estate.Problem;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Title;
import rivo.core.rehearse.TitleDifference;
import rivo.server.assignment.AssignmentDocument;
import rivo.server.change.DraftRehearsal.Rehearsed;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.Json;
import rivo.server.estate.Snapshot;
import rivo.server.web.ApiException;
import rivo.server.web.Page;
import tools.jackson.databind.JsonNode;

/** The draft of whoever is signed in, with its rehearsal. */
@RestController
@RequestMapping("/api/draft")
class DraftApi {

    /**
     * @param rehearsal absent for an empty draft, and where the draft has become impossible
     * @param trouble why the draft cannot be published as it is; absent when it can
     * @param cautions what is not well with the releases that it would put on
     */
    record DraftView(List<EditView> edits, boolean mayUndo, boolean mayRedo, @Nullable RehearsalView rehearsal, @Nullable String trouble,
            List<Cautions.Caution> cautions) {
    }

    /** A document as it shall be. @param revision that it was made from; 0 for a new one */
    record DocumentEdit(long revision, JsonNode document) {
    }

    /** Opening the next wave of an assignment. */
    record WaveOpening(String assignment) {
    }

    /** Accepting a licence text. @param text what was read, to the letter */
    record LicenceAcceptance(String title, String text) {
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
    private final CurrentSnapshot current;

    DraftApi(Drafts drafts, DraftRehearsal rehearsals, Publishing publishing, Cautions cautions,
            CurrentSnapshot current) {
        this.drafts = drafts;
        this.rehearsals = rehearsals;
        this.publishing = publishing;
        this.cautions = cautions;
        this.current = current;
    }

    @GetMapping
    DraftView draft(Principal who) {
        Snapshot now = current.now();
        Draft draft = Drafts.of(now, who.getName());
        List<Edit> edits = draft.edits();
        List<EditView> views = edits.stream().map(edit -> EditView.of(now, edit)).toList();
        if (edits.isEmpty()) {
            return new DraftView(views, draft.mayUndo(), draft.mayRedo(), null, null, List.of());
        }
        try {
            Rehearsed rehearsed = rehearsals.rehearse(now, who.getName(), edits);
            List<Problem> unaccepted = cautions.unaccepted(rehearsed);
            return new DraftView(views, draft.mayUndo(), draft.mayRedo(), view(rehearsed), unaccepted.isEmpty() ? null
                    : new RefusedException(unaccepted).getMessage(), cautions.of(rehearsed));
        } catch (RefusedException e) {
            return new DraftView(views, draft.mayUndo(), draft.mayRedo(), null, e.getMessage(), List.of());
        }
    }

    /** Has something else assigned to an OU. */
    @PutMapping("/edits")
    DraftView put(@RequestBody OuAssignment wish, Principal who) {
        drafts.put(who.getName(), wish);
        return draft(who);
    }

    /** Puts a document in, or in place of what stands there. */
    @PutMapping("/documents/{kind}/{id}")
    DraftView put(@PathVariable String kind, @PathVariable String id, @RequestBody DocumentEdit edit, Principal who) {
        drafts.put(who.getName(), DraftKinds.of(kind), id, edit.revision(), edit.document());
        return draft(who);
    }

    /** Puts an assignment in, and the same of further titles with it, in one step. */
    @PutMapping("/assignments")
    DraftView put(@RequestBody WrittenAssignment written, Principal who) {
        drafts.put(who.getName(), written.edits());
        return draft(who);
    }

    /** A document as it is edited: as the draft has it, else as it is published. @throws ApiException when there is none, or it ends with the draft */
    @GetMapping("/documents/{kind}/{id}")
    DocumentEdit document(@PathVariable String kind, @PathVariable String id, Principal who) {
        Snapshot now = current.now();
        var documents = now.get(DraftKinds.of(kind));
        Edit edit = Drafts.of(now, who.getName()).edits().stream().filter(one -> one.kind().equals(kind) && one.document().equals(id)).findFirst().orElse(null);
        if (edit != null && edit.act() == Act.PUT && edit.content() != null) {
            return new DocumentEdit(edit.revision(), edit.content());
        }
        var published = documents.find(id);
        if (published == null) {
            throw ApiException.notFound("unknown-" + kind, "There is no " + kind + " " + id + ", or no longer; look at the list.");
        }
        return new DocumentEdit(documents.revision(id), Json.tree(published));
    }

    /** Has a document end. */
    @DeleteMapping("/documents/{kind}/{id}")
    DraftView retire(@PathVariable String kind, @PathVariable String id, @RequestParam long revision, Principal who) {
        drafts.retire(who.getName(), DraftKinds.of(kind), id, revision);
        return draft(who);
    }

    @PostMapping("/wave-openings")
    DraftView openWave(@RequestBody WaveOpening opening, Principal who) {
        drafts.act(who.getName(), Act.OPEN_WAVE, AssignmentDocument.KIND.word(), opening.assignment(), null);
        return draft(who);
    }

    @PostMapping("/licence-acceptances")
    DraftView accept(@RequestBody LicenceAcceptance acceptance, Principal who) {
        drafts.act(who.getName(), Act.ACCEPT, "title", acceptance.title(), acceptance.text());
        return draft(who);
    }

    @DeleteMapping("/edits/{edit}")
    DraftView drop(@PathVariable String edit, Principal who) {
        drafts.drop(who.getName(), edit);
        return draft(who);
    }

    /** Has an edit count although its document was changed since: it takes the place of what stands there now. */
    @PostMapping("/edits/{edit}/keeping")
    DraftView keep(@PathVariable String edit, Principal who) {
        drafts.keep(who.getName(), edit);
        return draft(who);
    }

    @PostMapping("/undo")
    DraftView undo(Principal who) {
        drafts.undo(who.getName());
        return draft(who);
    }

    @PostMapping("/redo")
    DraftView redo(Principal who) {
        drafts.redo(who.getName());
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
        Snapshot now = current.now();
        Rehearsed rehearsal = rehearsals.rehearse(now, who.getName(), Drafts.of(now, who.getName()).edits());
        Estate estate = rehearsal.after().estate();
        Audiences audiences = rehearsal.after().resolver().audiences();
        List<CountedDevice> all = new ArrayList<>();
        int total = 0;
        for (TitleDifference difference : rehearsal.titles()) {
            UnitSet units = part(part).of(difference);
            total += units.size();
            audiences.each(units).limit(page.end()).forEach(unit -> all.add(counted(estate, unit.device(), difference.title())));
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

    static CountedDevice counted(Estate estate, Device device, Title title) {
        return new CountedDevice(device.id(), device.name(), estate.ous().at(estate.ous().position(device.ou())).name(), title.id(), title.name());
    }

    private RehearsalView view(Rehearsed rehearsal) {
        Audiences audiences = rehearsal.after().resolver().audiences();
        List<TitleRehearsalView> titles = rehearsal.titles().stream()
                .map(d -> new TitleRehearsalView(d.title().id(), d.title().name(), d.gains().size(),
                        d.loses().size(), d.removes().size(), d.removesPresent(audiences).size(), d.newlyContested().size(),
                        d.settled().size(), rehearsals.bytes(rehearsal.after(), d)))
                .toList();
        return new RehearsalView(rehearsal.devices(), sum(titles, TitleRehearsalView::gains),
                sum(titles, TitleRehearsalView::loses), sum(titles, TitleRehearsalView::removes),
                sum(titles, TitleRehearsalView::removesPresent), sum(titles, TitleRehearsalView::newlyContested),
                sum(titles, TitleRehearsalView::settled),
                titles.stream().mapToLong(TitleRehearsalView::bytes).sum(), RehearsalToken.of(rehearsal),
                titles);
    }

    private static int sum(List<TitleRehearsalView> titles, java.util.function.ToIntFunction<TitleRehearsalView> of) {
        return titles.stream().mapToInt(of).sum();
    }
}
