package rivo.server.shelf;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import rivo.core.estate.Device;
import rivo.core.estate.RefusedException;
import rivo.devices.protocol.NoticeAnswer;
import rivo.devices.protocol.NoticeState;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.SignIns;
import rivo.server.estate.Snapshot;
import rivo.server.fleet.Courtesies;
import rivo.server.fleet.NoticeTexts;
import rivo.server.live.LiveEvents;
import rivo.server.live.Topics;
import rivo.server.notice.Notices;
import rivo.server.notice.OpenNotice;
import rivo.server.shelf.Shelf.ShelfNotice;
import rivo.server.web.ApiException;

/** What somebody is told and asked on their shelf of a computer, and what they answer. Safe for any number of threads. */
@Component
class ShelfNotices {

    /**
     * What somebody says to a notice.
     *
     * @param until when it may be asked again, of {@code later}; absent for the others
     */
    record Answering(@Nullable NoticeAnswer answer, @Nullable Instant until) {
    }

    private final ChangeWriter writer;
    private final LiveEvents events;

    ShelfNotices(ChangeWriter writer, LiveEvents events) {
        this.writer = writer;
        this.events = events;
    }

    static List<ShelfNotice> of(Snapshot snapshot, Device device, String person) {
        List<ShelfNotice> notices = new ArrayList<>();
        NoticeTexts texts = new NoticeTexts(snapshot, device);
        for (OpenNotice one : Notices.open(snapshot, device.id())) {
            Map<String, String> words = isFor(snapshot, device, one, person) ? texts.of(one) : null;
            if (words != null) {
                OpenNotice.Said said = one.said();
                Instant time = one.state() == NoticeState.COUNTING_DOWN ? one.until() : one.last();
                notices.add(new ShelfNotice(one.notice(), one.kind().word(), words, one.state().word(), one.until(), time, one.left(),
                        said == null ? null : said.answer().word(), said == null ? null : said.until()));
            }
        }
        return notices;
    }

    /** What is asked on a computer is answered by whoever is there, or was shown it; what is told, by those it is for. */
    private static boolean isFor(Snapshot snapshot, Device device, OpenNotice notice, String person) {
        SignIns signIns = snapshot.get(SignIns.PART).get(device.id());
        boolean isThere = signIns != null && signIns.isSignedIn(person);
        return notice.kind().asks() ? notice.state() != NoticeState.HELD && (isThere || person.equals(notice.person()))
                : notice.person() == null || person.equals(notice.person());
    }

    /** @throws ApiException where it is not open, or not theirs */
    void answer(String person, String device, String id, Answering said) {
        NoticeAnswer answer = said.answer();
        if (answer == null) {
            throw new RefusedException("missing", "answer", "Say now, later, at-sign-out or read.");
        }
        writer.take(context -> {
            Device known = Shelves.theirs(context.snapshot(), person, device);
            OpenNotice notice = Notices.open(context.snapshot(), device).stream().filter(one -> one.notice().equals(id) && isFor(context.snapshot(), known, one, person))
                    .findFirst().orElseThrow(() -> ApiException.refused(HttpStatus.CONFLICT, "withdrawn", "This is not asked any more; look at the shelf again."));
            Notices.answer(context, device, notice, new OpenNotice.Said(answer, answer == NoticeAnswer.LATER ? said.until() : null, person),
                    Courtesies.allowed(context.snapshot(), known, notice.kind(), notice.titles(), Objects.requireNonNullElse(notice.person(), person)));
            context.afterwards(() -> events.changed(Topics.device(device)));
            return notice;
        });
    }
}
