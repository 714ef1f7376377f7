package rivo.server.shelf;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.unboundid.ldap.sdk.Modification;
import com.unboundid.ldap.sdk.ModificationType;
import com.unboundid.ldap.sdk.SearchScope;
import java.net.http.HttpRequest;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import rivo.core.estate.Device;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Scope;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.TestClient;
import rivo.server.TestClient.Answer;
import rivo.server.TestServer;
import rivo.server.TestTitles;
import rivo.server.catalogue.title.Catalogue;
import rivo.server.catalogue.title.Presence;
import rivo.server.catalogue.title.TitleRecord;
import rivo.server.directory.DirectoryFollower;
import rivo.server.estate.CurrentSnapshot;
import rivo.server.estate.SnapshotReader;
import rivo.server.request.RequestDocument;
import tools.jackson.databind.JsonNode;

/** People's shelf, from the sign-in to what is given back: what they may, and what nobody may in their name. */
class ShelfTest extends ShelfWalk {

    @Test
    void anOfferIsTakenArrivesAndIsGivenBack() {
        offer(Scope.DEVICE);
        assertThat(offered().path("state").asString()).isEqualTo("offered");
        assertThat(offered().path("bytes").asLong()).isEqualTo(TestTitles.INSTALLER.length);
        assertThat(offered().path("mayRestart").asBoolean()).isTrue();
        assertThat(jobs()).isEmpty();
        assertThat(take().status()).isEqualTo(204);
        assertThat(take().status()).as("twice").isEqualTo(204);
        assertThat(jobs()).containsExactly("install -");
        assertThat(offered().path("state").asString()).isEqualTo("waiting");
        assertThat(offered().path("waitsFor").asString()).isEqualTo("computer");
        report("\"progress\":[{\"title\":\"" + title + "\",\"action\":\"install\",\"version\":\"4.2.0\",\"state\":\"running\",\"step\":2,\"steps\":4,\"percent\":40,"
                + "\"message\":\"fetching\",\"at\":\"2026-11-27T08:00:00Z\"}]");
        assertThat(offered().path("percent").asInt()).isEqualTo(40);
        report("\"present\":[{\"title\":\"" + title + "\",\"version\":\"4.2.0\"}]," + done("install"));
        assertThat(offered().path("state").asString()).isEqualTo("in-place");
        JsonNode here = own.ask("GET", "/api/shelf").body().path("here").get(0);
        assertThat(here.path("why").asString()).isEqualTo("taken");
        assertThat(here.path("takenAt").asString()).isNotEmpty();

        assertThat(lineOnDevice()).as("to administrators").isEqualTo("taken from the shelf by Mirko Colddale; offered, " + nameOfDevice());

        assertThat(giveBack().status()).isEqualTo(204);
        assertThat(giveBack().status()).as("twice").isEqualTo(204);
        assertThat(jobs()).containsExactly("remove -");
        assertThat(lineOnDevice()).isEqualTo("at its next call-in");
        assertThat(offered().path("state").asString()).isEqualTo("leaving");
        report("\"present\":[]," + done("remove"));
        assertThat(jobs()).isEmpty();
        assertThat(offered().path("state").asString()).isEqualTo("offered");
        assertThat(RequestDocument.of(server.bean(CurrentSnapshot.class).now(), device.id)).noneMatch(one -> one.title().equals(title));
    }

    @Test
    void whatIsNotOfferedAnyMoreIsSeenToLeaveWhenItIsGivenBack() {
        offer(Scope.DEVICE);
        take();
        report("\"present\":[{\"title\":\"" + title + "\",\"version\":\"4.2.0\"}]," + done("install"));
        assertThat(server.ask("DELETE", "/api/draft/documents/assignment/" + title + "?revision=1", null).status()).isEqualTo(200);
        assertThat(server.publish("offered no more").status()).isEqualTo(200);
        assertThat(offered().isMissingNode()).isTrue();
        assertThat(coming().isMissingNode()).as("it stays until it is given back").isTrue();
        assertThat(own.ask("GET", "/api/shelf").body().path("here").findValuesAsString("title")).contains(title);
        giveBack();
        assertThat(jobs()).containsExactly("remove -");
        assertThat(coming().path("leaves").asBoolean()).isTrue();
        assertThat(own.ask("GET", "/api/shelf").body().path("here").findValuesAsString("title")).doesNotContain(title);
        assertThat(coming().path("waitsFor").asString()).isEqualTo("computer");
        assertThat(coming().path("due").asString()).isNotEmpty();
        report("\"progress\":[{\"title\":\"" + title + "\",\"action\":\"remove\",\"state\":\"running\",\"step\":1,\"steps\":2,\"percent\":50,"
                + "\"message\":\"removing\",\"at\":\"2026-11-27T08:00:00Z\"}]");
        assertThat(coming().path("percent").asInt()).isEqualTo(50);
        report("\"present\":[]," + done("remove"));
        assertThat(coming().isMissingNode()).isTrue();
    }

    private static Answer byAgent(String path, String body) {
        return device.ask("POST", "/device/v2/" + path, body.getBytes(StandardCharsets.UTF_8), Map.of());
    }

    @Test
    void anAgentShowsTheShelfItselfAndTakesAndGivesBackInTheNameOfWhoeverIsThere() {
        offer(Scope.DEVICE);
        String who = "\"account\":\"" + PERSON + "\"";
        JsonNode shelf = byAgent("shelf", "{" + who + "}").body();
        assertThat(shelf.path("offers").valueStream().map(one -> one.path("title").asString())).contains(title);
        assertThat(shelf.path("devices")).as("of this computer alone").hasSize(1);
        assertThat(byAgent("requests", "{" + who + ",\"action\":\"take\",\"title\":\"" + title + "\"}").status()).isEqualTo(204);
        assertThat(jobs()).containsExactly("install -");
        assertThat(request().path("byName").asString()).isEqualTo("Mirko Colddale");
        assertThat(byAgent("requests", "{" + who + ",\"action\":\"give-back\",\"title\":\"" + title + "\"}").status()).isEqualTo(204);
        assertThat(jobs()).isEmpty();

        assertThat(byAgent("requests", "{" + who + ",\"action\":\"take\",\"title\":\"siltscope-none\"}").status()).as("not offered").isEqualTo(403);
        assertThat(byAgent("requests", "{\"account\":\"rowena.elmby\",\"action\":\"take\",\"title\":\"" + title + "\"}").code()).isEqualTo("not-signed-in");
        assertThat(byAgent("shelf", "{\"account\":\"rowena.elmby\"}").code()).isEqualTo("not-signed-in");
        assertThat(byAgent("requests", "{" + who + "}").status()).isEqualTo(422);
        assertThat(byAgent("requests", "{" + who + ",\"action\":\"burn\",\"title\":\"" + title + "\"}").status()).isEqualTo(400);
        assertThat(jobs()).isEmpty();
    }

    @Test
    void whatWasThereBeforeItWasTakenStaysWhenItIsGivenBack() {
        offer(Scope.DEVICE);
        report("\"present\":[{\"title\":\"" + title + "\",\"version\":\"4.2.0\"}]");
        assertThat(offered().path("state").asString()).isEqualTo("in-place");
        assertThat(take().status()).isEqualTo(204);
        assertThat(giveBack().status()).isEqualTo(204);
        assertThat(jobs()).isEmpty();
        report("\"present\":[]");
    }

    @Test
    void aWebPageIsOpenedAndInstallsNothing() {
        Catalogue catalogue = server.bean(Catalogue.class);
        TitleRecord.About about = new TitleRecord.About("", "", "", "", "", "", "", "", "", "https://rota.quillbrook.example/");
        TitleRecord page = new TitleRecord(title, "Rota", "", about, "device", null, List.of(), List.of(), List.of(TitleRecord.ReleaseRecord.of("1",
                List.of(new TitleRecord.VariantRecord("all", null, false, List.of(), List.of(), List.of(), List.of(), Presence.NONE)))));
        catalogue.put("test", page);
        assign("available", Map.of());
        assertThat(offered().path("web").asString()).isEqualTo("https://rota.quillbrook.example/");
        assertThat(offered().path("bytes").asLong()).isZero();
        assertThat(jobs()).isEmpty();
        server.ask("DELETE", "/api/draft", null);
        assertThat(server.ask("PUT", "/api/draft/documents/assignment/" + title, Map.of("revision", 1, "document", Map.of("id", title, "seq", 0, "subject",
                "title:" + title, "intent", "required", "follows", "device", "include", List.of("device:" + device.id)))).status()).isEqualTo(200);
        assertThat(server.publish("required").status()).isEqualTo(200);
        assertThat(offered().path("web").asString()).as("required").isEqualTo("https://rota.quillbrook.example/");
        assertThat(jobs()).isEmpty();
        assertThat(lineOnDevice()).startsWith("required");
        assertThat(own.ask("GET", "/api/shelf").body().path("coming").valueStream().map(one -> one.path("title").asString())).doesNotContain(title);
    }

    @ParameterizedTest
    @ValueSource(strings = {"javascript:alert(1)", "rota.quillbrook.example", "https://", "file:///etc/passwd", "https://admin@rota.quillbrook.example/", "https://a b/"})
    void whatIsNoAddressOfTheWebIsNotOpened(String address) {
        TitleRecord.About about = new TitleRecord.About("", "", "", "", "", "", "", "", "", address);
        TitleRecord page = new TitleRecord(title, "Rota", "", about, "device", null, List.of(), List.of(), List.of());
        assertThatThrownBy(() -> server.bean(Catalogue.class).put("test", page)).isInstanceOf(RefusedException.class).hasMessageContaining("write it whole");
    }

    @Test
    void anEntryInTheMenuOpensTheShelfAtItsTitle() {
        TestTitles.add(server, title, "Offered " + title, Scope.DEVICE);
        assign("available", Map.of("menu", true));
        assertThat(device.work().body().path("menu").valueStream().map(entry -> entry.path("title").asString())).contains(title);
        report("\"facts\":{\"arch\":\"arm64\"}");
        Catalogue catalogue = server.bean(Catalogue.class);
        TitleRecord fitting = catalogue.now().record(title);
        TitleRecord.ReleaseRecord release = fitting.releases().get(0);
        TitleRecord.VariantRecord variant = release.variants().get(0);
        catalogue.put("test", fitting.withReleases(List.of(release.withVariants(List.of(new TitleRecord.VariantRecord(variant.id(), "arch eq \"x64\"", false,
                variant.contents(), variant.install(), variant.remove(), variant.repair(), variant.presence()))))));
        assertThat(device.work().body().path("menu").valueStream().map(entry -> entry.path("title").asString())).as("what does not fit").doesNotContain(title);
        catalogue.put("test", fitting);
        byte[] asked = ("{\"account\":\"" + PERSON + "\",\"title\":\"" + title + "\"}").getBytes(StandardCharsets.UTF_8);
        assertThat(device.ask("POST", "/device/v2/links", asked, Map.of()).body().path("path").asString()).startsWith("/shelf?take=" + title + "#in=");
        byte[] unknown = ("{\"account\":\"" + PERSON + "\",\"title\":\"nothing&x=1\"}").getBytes(StandardCharsets.UTF_8);
        assertThat(device.ask("POST", "/device/v2/links", unknown, Map.of()).status()).isEqualTo(404);
        assertThat(server.ask("PUT", "/api/draft/documents/assignment/" + title, Map.of("revision", 1, "document", Map.of("id", title, "seq", 0, "subject",
                "title:" + title, "intent", "required", "follows", "device", "menu", true, "include", List.of("device:" + device.id)))).code()).isEqualTo("bad-menu");
    }

    @Test
    void whatIsForEachPersonIsTakenByEachForThemselves() {
        offer(Scope.USER);
        assertThat(offered().path("forPerson").asBoolean()).isTrue();
        assertThat(take().status()).isEqualTo(204);
        assertThat(jobs()).containsExactly("install " + person);
        report("\"signedIn\":[]");
        assertThat(offered().path("waitsFor").asString()).isEqualTo("sign-in");
        report("\"signedIn\":[\"" + PERSON + "\"]");
        assertThat(giveBack().status()).isEqualTo(204);
        assertThat(jobs()).isEmpty();
    }

    @Test
    void requestsOutliveARestartAndThoseWhoLeaveForAWhile() throws Exception {
        offer(Scope.DEVICE);
        take();
        var now = server.bean(CurrentSnapshot.class).now();
        assertThat(server.bean(SnapshotReader.class).read(now.estate().asOf()).estate().requests()).containsExactlyInAnyOrderElementsOf(now.estate().requests());
        String dn = server.directory().search(DemoOrganisation.BASE_DN, SearchScope.SUB, "(cn=" + now.estate().devices().find(device.id).name() + ")", "1.1")
                .getSearchEntries().get(0).getDN();
        server.directory().modify(dn, new Modification(ModificationType.REPLACE, "userAccountControl", "4098"));
        server.bean(DirectoryFollower.class).scanNow(true);
        assertThat(server.bean(CurrentSnapshot.class).now().estate().requests()).noneMatch(one -> one.device().equals(device.id));
        server.bean(SnapshotReader.class).read(now.estate().asOf());
        server.directory().modify(dn, new Modification(ModificationType.REPLACE, "userAccountControl", "4096"));
        server.bean(DirectoryFollower.class).scanNow(true);
        assertThat(jobs()).as("back as it was").containsExactly("install -");
        giveBack();
    }

    @Test
    void nobodyTakesWhatIsNotOfferedOrForAnotherComputer() {
        TestTitles.add(server, title, "Not offered");
        Answer answer = take();
        assertThat(answer.status()).isEqualTo(403);
        assertThat(answer.code()).isEqualTo("not-offered");
        String other = server.bean(CurrentSnapshot.class).now().estate().devices().all().stream().filter(d -> !d.people().contains(person)).findFirst()
                .orElseThrow().id();
        assertThat(own.ask("PUT", "/api/shelf/on/" + other + "/" + title).code()).isEqualTo("not-yours");
        assertThat(own.ask("DELETE", "/api/shelf/on/" + other + "/" + title).code()).isEqualTo("not-yours");
        assertThat(own.ask("GET", "/api/shelf?device=" + other).status()).isEqualTo(403);
        assertThat(giveBack().code()).isEqualTo("not-taken");
        assertThat(take().code()).isEqualTo("not-offered");
        assertThat(new TestClient(server.url()).ask("GET", "/api/shelf").status()).isEqualTo(401);
        assertThat(enter(new TestClient(server.url()), PERSON, "wrong").status()).isEqualTo(401);
    }

    /** A session of the shelf opens nothing else. */
    @Test
    void aShelfIsNoDoorToTheRest() {
        for (String path : List.of("/api/titles", "/api/devices", "/api/draft", "/api/sessions", "/api/estate", "/api/live", "/api/people/" + person,
                "/api/devices/" + device.id)) {
            assertThat(own.ask("GET", path).status()).as(path).isEqualTo(403);
        }
        assertThat(own.ask("POST", "/api/devices/" + device.id + "/token", null).code()).isEqualTo("not-allowed");
        Answer page = own.send(HttpRequest.newBuilder(server.url().resolve("/catalogue")).header("Accept", "text/html"), "GET", null);
        assertThat(page.status()).isEqualTo(302);
        assertThat(page.header("Location")).endsWith("/shelf");
        assertThat(own.ask("GET", "/api/session").body().path("administrator").asBoolean()).isFalse();
        assertThat(own.ask("POST", "/api/session", Map.of("account", PERSON, "password", TestServer.PASSWORD)).status()).as("no administrator").isEqualTo(403);
        assertThat(server.ask("GET", "/api/shelf", null).status()).as("administrators have a shelf, too").isEqualTo(200);
        assertThat(own.ask("DELETE", "/api/session").status()).isEqualTo(204);
        assertThat(own.ask("GET", "/api/shelf").status()).isEqualTo(401);
    }

    @Test
    void whoseAccountIsDisabledIsOut() throws Exception {
        String dn = server.directory().search(DemoOrganisation.BASE_DN, SearchScope.SUB, "(uid=" + PERSON + ")", "1.1").getSearchEntries().get(0).getDN();
        String token = token(link(PERSON));
        server.directory().modify(dn, new Modification(ModificationType.REPLACE, "userAccountControl", "514"));
        server.bean(DirectoryFollower.class).scanNow(true);
        assertThat(own.ask("GET", "/api/shelf").status()).isEqualTo(401);
        assertThat(enter(new TestClient(server.url()), PERSON, TestServer.PASSWORD).code()).isIn("not-allowed", "wrong-sign-in");
        assertThat(enterBy(new TestClient(server.url()), token).code()).as("by a link made before").isEqualTo("not-allowed");
        server.directory().modify(dn, new Modification(ModificationType.REPLACE, "userAccountControl", "512"));
        server.bean(DirectoryFollower.class).scanNow(true);
        assertThat(enter(new TestClient(server.url()), PERSON, TestServer.PASSWORD).status()).isEqualTo(200);
    }

    @Test
    void whoeverWaitsForASeatSeesTheirPlace() throws InterruptedException {
        offer(Scope.DEVICE);
        Catalogue catalogue = server.bean(Catalogue.class);
        TitleRecord now = catalogue.now().record(title);
        catalogue.put("test", new TitleRecord(now.id(), now.name(), now.maker(), now.about(), now.scope(), 0, List.of(), List.of(), now.releases()));
        take();
        assertThat(offered().path("waitsFor").asString()).isEqualTo("seat");
        assertThat(offered().at("/seats/place").asInt()).isEqualTo(1);
        // What titles come to is not found out at each look.
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(20);
        while (server.ask("GET", "/api/today", null).body().path("seats").valueStream().noneMatch(one -> one.path("title").asString().equals(title))) {
            assertThat(System.nanoTime()).as("in time").isLessThan(end);
            Thread.sleep(100);
        }
    }

    private static Answer link(String account) {
        return device.ask("POST", "/device/v2/links", ("{\"account\":\"" + account + "\"}").getBytes(StandardCharsets.UTF_8), Map.of());
    }

    private static String token(Answer link) {
        return link.body().path("path").asString().replace("/shelf#in=", "");
    }

    private static Answer enterBy(TestClient client, String token) {
        return client.ask("POST", "/api/shelf/session/link", Map.of("token", token));
    }

    @Test
    void aDeviceSignsItsPersonInByALinkThatWorksOnceAndOnThatDeviceAlone() {
        String token = token(link(PERSON));
        TestClient browser = new TestClient(server.url());
        assertThat(enterBy(browser, token).body().path("account").asString()).isEqualTo(PERSON);
        assertThat(browser.ask("GET", "/api/shelf").body().path("devices").valueStream().map(one -> one.path("id").asString())).containsExactly(device.id);
        assertThat(enterBy(new TestClient(server.url()), token).code()).as("twice").isEqualTo("bad-link");
        assertThat(enterBy(new TestClient(server.url()), "forged").code()).isEqualTo("bad-link");
        assertThat(enterBy(new TestClient(server.url()), "").status()).isEqualTo(403);
        String other = server.bean(CurrentSnapshot.class).now().estate().devices().all().stream().map(Device::id).filter(id -> !id.equals(device.id)).findFirst()
                .orElseThrow();
        assertThat(browser.ask("GET", "/api/shelf?device=" + other).code()).isEqualTo("other-device");
        assertThat(browser.ask("PUT", "/api/shelf/on/" + other + "/siltscope").code()).isEqualTo("other-device");
        assertThat(browser.ask("DELETE", "/api/shelf/on/" + other + "/siltscope").code()).isEqualTo("other-device");
        assertThat(browser.ask("PUT", "/api/shelf/sooner/" + other + "/siltscope").code()).isEqualTo("other-device");
        assertThat(browser.ask("GET", "/api/devices").status()).as("nothing else is open").isEqualTo(403);
    }

    @Test
    void aDeviceGetsNoLinkForWhoeverIsNotSignedInOnIt() {
        assertThat(link("imara.voss").code()).isEqualTo("not-signed-in");
        assertThat(link("nobody.here").code()).isEqualTo("not-signed-in");
        assertThat(device.ask("POST", "/device/v2/links", "{}".getBytes(StandardCharsets.UTF_8), Map.of()).code()).isEqualTo("not-signed-in");
        report("\"signedIn\":[]");
        assertThat(link(PERSON).code()).isEqualTo("not-signed-in");
        report("\"signedIn\":[\"" + PERSON + "\"]");
        assertThat(link(PERSON).status()).isEqualTo(200);
    }

}
