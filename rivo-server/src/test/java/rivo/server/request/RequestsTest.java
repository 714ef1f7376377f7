package rivo.server.request;

import static org.assertj.core.api.Assertions.assertThat;

import com.unboundid.ldap.sdk.Modification;
import com.unboundid.ldap.sdk.ModificationType;
import com.unboundid.ldap.sdk.SearchScope;
import java.time.Duration;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Collections;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.core.estate.Request;
import rivo.core.estate.Scope;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.HandClock;
import rivo.server.catalogue.choice.FixedChoices;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.ChoiceKind;
import rivo.server.catalogue.title.ChoiceRecord;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.directory.DirectoryFollower;
import rivo.server.estate.ChangeWriter;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.live.LiveEvents;
import rivo.server.live.Told;
import rivo.server.request.Requests;
import rivo.server.shelf.ShelfWalk;
import tools.jackson.databind.JsonNode;

/** What people ask for: with an approval, for a time, with a licence, and sooner than it would come. */
class RequestsTest extends ShelfWalk {

    @Test
    void whatHasToBeApprovedWaitsUntilSomebodyAgrees() {
        offer(Scope.DEVICE);
        asks(true, "");
        assertThat(offered().at("/asks/approval").asBoolean()).isTrue();
        assertThat(take(Map.of("why", " ")).code()).as("without a reason").isEqualTo("why");
        assertThat(take(Map.of("why", "x".repeat(501))).status()).isEqualTo(422);
        assertThat(request().isMissingNode()).isTrue();
        assertThat(take(Map.of("why", "Survey of the Tarn intake")).status()).isEqualTo(204);
        assertThat(take(Map.of("why", "again")).status()).as("twice changes nothing").isEqualTo(204);
        assertThat(jobs()).isEmpty();
        assertThat(offered().path("state").asString() + " " + offered().path("waitsFor").asString()).isEqualTo("waiting approval");
        assertThat(lineOnDevice()).isEqualTo("asked for; waits for approval");
        assertThat(request().path("why").asString()).isEqualTo("Survey of the Tarn intake");
        assertThat(request().path("byName").asString()).isEqualTo("Mirko Colddale");
        int asked = server.ask("GET", "/api/today", null).body().path("requests").asInt();
        assertThat(asked).isPositive();
        assertThat(answer(Map.of("agreed", true)).status()).isEqualTo(204);
        assertThat(jobs()).containsExactly("install -");
        assertThat(answer(Map.of("agreed", false, "words", "late")).code()).as("answered already").isEqualTo("not-asked");
        assertThat(server.ask("GET", "/api/today", null).body().path("requests").asInt()).isEqualTo(asked - 1);
    }

    @Test
    void whatIsRefusedSaysWhyAndMayBeAskedForAgain() {
        offer(Scope.DEVICE);
        asks(true, "");
        take(Map.of("why", "Curious"));
        assertThat(answer(Map.of("agreed", false)).code()).as("without words").isEqualTo("words");
        assertThat(answer(Map.of("agreed", false, "words", "No seat is left this year.")).status()).isEqualTo(204);
        assertThat(jobs()).isEmpty();
        assertThat(offered().path("state").asString()).isEqualTo("offered");
        assertThat(offered().at("/request/state").asString()).isEqualTo("refused");
        assertThat(offered().at("/request/words").asString()).isEqualTo("No seat is left this year.");
        assertThat(take(Map.of("why", "For the audit, too")).status()).isEqualTo(204);
        assertThat(offered().at("/request/state").asString()).isEqualTo("asked");
        assertThat(giveBack().status()).as("withdrawn").isEqualTo(204);
        assertThat(request().isMissingNode()).isTrue();
        assertThat(answer(Map.of("agreed", true)).status()).isEqualTo(409);
    }

    @Test
    void whatIsAgreedToForATimeIsGivenBackAtItsEnd() {
        offer(Scope.DEVICE);
        asks(true, "");
        take(Map.of("why", "One week of surveying"));
        assertThat(answer(Map.of("agreed", true, "until", "2020-01-01T00:00:00Z")).code()).as("past").isEqualTo("until");
        assertThat(answer(Map.of("agreed", true, "until", Instant.now().plus(Duration.ofDays(4000)).toString())).code()).isEqualTo("until");
        Instant end = Instant.now().plus(Duration.ofDays(7)).truncatedTo(ChronoUnit.SECONDS);
        assertThat(answer(Map.of("agreed", true, "until", end.toString())).status()).isEqualTo(204);
        assertThat(offered().at("/request/until").asString()).isNotEmpty();
        report("\"present\":[{\"title\":\"" + title + "\",\"version\":\"4.2.0\"}]," + done("install"));
        assertThat(offered().path("state").asString()).isEqualTo("in-place");
        HandClock clock = new HandClock(end.minusMillis(1));
        Requests requests = new Requests(server.bean(ChangeWriter.class), server.bean(CurrentSnapshot.class), server.bean(LiveEvents.class), clock);
        requests.end();
        assertThat(offered().path("state").asString()).as("a moment before").isEqualTo("in-place");
        clock.passes(Duration.ofMillis(1));
        requests.end();
        assertThat(jobs()).containsExactly("remove -");
        assertThat(offered().path("state").asString()).isEqualTo("leaving");
    }

    @Test
    void eachPersonAcceptsTheLicenceTextAsItStands() {
        offer(Scope.DEVICE);
        asks(false, "Use it for water alone.");
        assertThat(offered().at("/asks/licence").asString()).isEqualTo("Use it for water alone.");
        assertThat(take().code()).isEqualTo("licence-not-accepted");
        assertThat(take(Map.of("licence", "0".repeat(64))).code()).as("another text").isEqualTo("licence-not-accepted");
        assertThat(jobs()).isEmpty();
        assertThat(take(Map.of("licence", offered().at("/asks/licenceHash").asString())).status()).isEqualTo(204);
        assertThat(jobs()).containsExactly("install -");
    }

    @Test
    void nobodyAnswersTheirOwnRequestFromTheShelf() {
        offer(Scope.DEVICE);
        asks(true, "");
        take(Map.of("why", "Curious"));
        assertThat(own.ask("GET", "/api/requests").status()).isEqualTo(403);
        assertThat(own.ask("POST", "/api/requests/answer", Map.of("id", request().path("id").asString(), "agreed", true)).status()).isEqualTo(403);
        assertThat(jobs()).isEmpty();
    }

    @Test
    void whatHasADeadlineMayComeSooner() {
        require(Map.of("deadline", Map.of("at", "2099-01-01T00:00:00Z")));
        assertThat(coming().path("mayBeSooner").asBoolean()).isTrue();
        assertThat(anyTimeFrom()).isEqualTo("-");
        assertThat(own.ask("PUT", "/api/shelf/sooner/" + device.id + "/" + title).status()).isEqualTo(204);
        assertThat(own.ask("PUT", "/api/shelf/sooner/" + device.id + "/" + title).status()).as("twice").isEqualTo(204);
        assertThat(coming().path("mayBeSooner").asBoolean()).isFalse();
        assertThat(anyTimeFrom()).as("windows do not count any more").isEqualTo("1970-01-01T00:00:00Z");
        report("\"present\":[{\"title\":\"" + title + "\",\"version\":\"4.2.0\"}]," + done("install"));
        assertThat(request().isMissingNode()).as("it is done").isTrue();
    }

    @Test
    void whatHasNoDeadlineOrIsNotRequiredCannotComeSooner() {
        require(Map.of());
        assertThat(coming().path("mayBeSooner").asBoolean()).isFalse();
        assertThat(own.ask("PUT", "/api/shelf/sooner/" + device.id + "/" + title).code()).isEqualTo("no-deadline");
        assertThat(own.ask("PUT", "/api/shelf/sooner/" + device.id + "/moonware").code()).isEqualTo("not-yours");
    }

    @Test
    void whatIsOpenToThemIsChosenAsTheyTakeIt() {
        offer(Scope.DEVICE);
        Catalogue catalogue = server.bean(Catalogue.class);
        TitleRecord now = catalogue.now().record(title);
        ChoiceRecord languages = new ChoiceRecord("languages", "Languages", ChoiceKind.LANGUAGES, "en", List.of(new ChoiceRecord.Allowed("en", "English", "", 0, ""),
                new ChoiceRecord.Allowed("cy", "Welsh", "", 0, "")), null, null);
        ChoiceRecord host = new ChoiceRecord("server", "Server", ChoiceKind.TEXT, "tarn", List.of(), null, null);
        ChoiceRecord tips = new ChoiceRecord("tips", "Tips", ChoiceKind.SWITCH, "on", List.of(), null, null);
        catalogue.put("test", now.withReleases(now.releases().stream().map(r -> new TitleRecord.ReleaseRecord(r.version(), r.offered(), r.note(), r.needs(), r.replaces(),
                List.of(languages, host, tips), r.variants())).toList()));
        JsonNode choices = offered().at("/asks/choices");
        assertThat(choices.valueStream().map(one -> one.path("id").asString())).as("what is typed is not theirs to say").containsExactly("languages", "tips");
        assertThat(choices.path(0).path("value").asString()).isEqualTo("en");
        assertThat(choices.path(1).path("values").valueStream().map(one -> one.path("value").asString())).containsExactly("on", "off");
        assertThat(take(Map.of("choices", Map.of("languages", "fr"))).code()).isEqualTo("not-allowed");
        assertThat(take(Map.of("choices", Map.of("server", "x"))).code()).isEqualTo("not-allowed");
        assertThat(take(Map.of("choices", Collections.singletonMap("languages", null))).status()).isEqualTo(422);
        assertThat(jobs()).isEmpty();
        assertThat(take(Map.of("choices", Map.of("languages", "en,cy"))).status()).isEqualTo(204);
        assertThat(server.bean(CurrentSnapshot.class).now().get(FixedChoices.PART).get(title).get(person)).containsExactly(Map.entry("languages", "en,cy"));
        assertThat(offered().at("/asks/choices/0/value").asString()).isEqualTo("en,cy");
    }

    private List<String> listed(String narrowed) {
        return server.ask("GET", "/api/requests?" + narrowed, null).body().path("rows").valueStream().map(one -> one.path("title").asString()).toList();
    }

    @Test
    void theyAreListedThoseThatWaitFirstAndNarrowedByEachOfTheirParts() {
        offer(Scope.DEVICE);
        asks(true, "");
        String waiting = title;
        take(Map.of("why", "For the survey"));
        title = waiting + "-b";
        offer(Scope.DEVICE);
        take();
        assertThat(listed("device=" + device.id)).startsWith(waiting).contains(title);
        assertThat(listed("state=asked")).contains(waiting).doesNotContain(title);
        assertThat(listed("state=taken&title=" + title)).containsExactly(title);
        assertThat(listed("title=" + title + "&person=" + person)).containsExactly(title);
        assertThat(listed("title=" + title + "&person=nobody")).isEmpty();
        assertThat(listed("title=" + title + "&device=d0")).isEmpty();
        assertThat(server.ask("GET", "/api/requests?limit=1&device=" + device.id, null).body().path("rows")).hasSize(1);
        JsonNode row = request();
        assertThat(row.path("titleName").asString()).isEqualTo("Offered " + title);
        assertThat(row.path("deviceName").asString()).isEqualTo(nameOfDevice());
        assertThat(row.path("byName").asString()).isEqualTo("Mirko Colddale");
    }

    /** As they were left: who has gone may come back. What is agreed to meanwhile has no effect on a device that is not there. */
    @Test
    void thoseOfADeviceThatHasGoneRestAndAreSaidWithoutItsName() throws Exception {
        offer(Scope.DEVICE);
        asks(true, "");
        take(Map.of("why", "For the survey"));
        String dn = server.directory().search(DemoOrganisation.BASE_DN, SearchScope.SUB, "(cn=" + nameOfDevice() + ")", "1.1").getSearchEntries().get(0).getDN();
        disable(dn, true);
        assertThat(request().path("deviceName").asString()).isEqualTo("a device that has gone");
        assertThat(request().path("byName").asString()).isEqualTo("Mirko Colddale");
        assertThat(answer(Map.of("agreed", true)).status()).isEqualTo(204);
        CurrentSnapshot current = server.bean(CurrentSnapshot.class);
        assertThat(current.now().estate().requests()).noneMatch(one -> one.title().equals(title));
        disable(dn, false);
        assertThat(current.now().estate().requests()).anyMatch(one -> one.title().equals(title));
        assertThat(jobs()).containsExactly("install -");
    }

    private static void disable(String computer, boolean disabled) throws Exception {
        server.directory().modify(computer, new Modification(ModificationType.REPLACE, "userAccountControl", disabled ? "4098" : "4096"));
        server.bean(DirectoryFollower.class).scanNow(true);
    }

    @Test
    void whatIsTakenAskedForAndAnsweredIsToldToThoseWhoLook() {
        offer(Scope.DEVICE);
        asks(true, "");
        String[] topics = {"title:" + title, "device:" + device.id, "requests"};
        Told.by(server, () -> take(Map.of("why", "For the survey")), topics);
        Told.by(server, () -> answer(Map.of("agreed", true)), topics);
        Told.by(server, this::giveBack, topics);
    }

    @Test
    void whoeverAsksTwiceHasAskedOnce() {
        offer(Scope.DEVICE);
        asks(true, "");
        take(Map.of("why", "For the survey"));
        JsonNode first = request();
        assertThat(take(Map.of("why", "Something else")).status()).isEqualTo(204);
        assertThat(request()).isEqualTo(first);
    }

    @Test
    void whatIsTakenLeavesWhatWasTakenBeforeAndIsOnRecordOnce() {
        offer(Scope.DEVICE);
        take();
        String first = title;
        title = first + "-b";
        offer(Scope.USER);
        take();
        take();
        assertThat(request().path("forPerson").asBoolean()).isTrue();
        assertThat(server.bean(CurrentSnapshot.class).now().estate().requests().stream().map(Request::title)).contains(first, title);
        assertThat(server.bean(JdbcClient.class).sql("select count(*) from journal where kind = 'taken' and subject = ?").param("title:" + title)
                .query(Integer.class).single()).isEqualTo(1);
        giveBack();
        assertThat(server.bean(CurrentSnapshot.class).now().estate().requests().stream().map(Request::title)).contains(first).doesNotContain(title);
        title = first;
        assertThat(request().path("forPerson").asBoolean()).isFalse();
    }
}
