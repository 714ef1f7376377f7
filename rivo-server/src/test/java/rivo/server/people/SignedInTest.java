package rivo.server.people;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.unboundid.ldap.listener.InMemoryDirectoryServerSnapshot;
import com.unboundid.ldap.sdk.Entry;
import java.net.http.HttpRequest;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.simple.JdbcClient;
import rivo.directory.demo.DemoOrganisation;
import rivo.server.ServerSettings;
import rivo.server.TestClient.Answer;
import rivo.server.TestClient;
import rivo.server.TestServer;
import rivo.server.directory.DirectoryFollower;
import rivo.server.estate.CurrentSnapshot;

/** Who is signed in, and whether they still may, as the directory and time go on. */
class SignedInTest {

    private static final String DESK = "cn=technology-desk,ou=Groups," + DemoOrganisation.BASE_DN;

    @TempDir
    private static Path data;
    private static TestServer server;
    private static InMemoryDirectoryServerSnapshot directory;

    @BeforeAll
    static void start() {
        server = TestServer.start(data);
        directory = server.directory().createSnapshot();
    }

    @AfterAll
    static void stop() {
        server.close();
    }

    @BeforeEach
    void signIn() {
        server.signIn();
    }

    @AfterEach
    void putTheDirectoryBack() {
        server.directory().restoreSnapshot(directory);
        scan();
    }

    private int titles() {
        return server.ask("GET", "/api/titles", null).status();
    }

    private void scan() {
        server.bean(DirectoryFollower.class).scanNow(false);
    }

    @Test
    void whoLeavesTheGroupIsOutWithTheNextRequest() throws Exception {
        assertThat(titles()).isEqualTo(200);
        String someone = new DemoOrganisation(true).people().stream().filter(p -> !p.account().equals(DemoOrganisation.ADMINISTRATOR))
                .map(p -> "uid=" + p.account() + "," + p.ouDn()).findFirst().orElseThrow();
        server.directory().modify("dn: " + DESK, "changetype: modify", "replace: member", "member: " + someone);
        scan();
        assertThat(titles()).isEqualTo(401);
        assertThat(server.ask("GET", "/api/session", null).status()).isEqualTo(204);
        Answer again = server.ask("POST", "/api/session",
                Map.of("account", DemoOrganisation.ADMINISTRATOR, "password", TestServer.PASSWORD));
        assertThat(again.code()).isEqualTo("not-allowed");
    }

    @Test
    void whoseAccountIsDisabledIsOutToo() {
        server.bean(JdbcClient.class).sql("update users set enabled = false where account = ?").params(DemoOrganisation.ADMINISTRATOR).update();
        assertThat(titles()).as("as the directory was last read").isEqualTo(200);
        Administrators anew = new Administrators(settings(DemoOrganisation.ADMINISTRATORS_DN), server.bean(CurrentSnapshot.class),
                server.bean(JdbcClient.class));
        assertThat(anew.hold(id(DemoOrganisation.ADMINISTRATOR))).isFalse();
    }

    private String id(String account) {
        return server.bean(JdbcClient.class).sql("select id from users where account = ?").params(account).query(String.class).single();
    }

    private ServerSettings settings(String administrators) {
        ServerSettings plain = ServerSettings.at(data);
        return new ServerSettings(data, plain.callInEvery(), null, false, false, plain.clientPatience(), plain.reports(), new ServerSettings.DirectorySection(
                server.bean(DirectoryFollower.class).directory().settings().url(), DemoOrganisation.BASE_DN, "", "", 1, plain.callInEvery(),
                false, null, plain.callInEvery(), administrators), null, null);
    }

    /** Another OU could hold a group of the same name, and whoever looks after that OU would look after Rivo. */
    @Test
    void theGroupIsNamedByWhatOnlyOneCanBe() {
        CurrentSnapshot current = server.bean(CurrentSnapshot.class);
        JdbcClient db = server.bean(JdbcClient.class);
        assertThatThrownBy(() -> new Administrators(settings("rivo-administrators"), current, db))
                .isInstanceOf(IllegalStateException.class).hasMessageContaining("distinguished name");
        String imara = id(DemoOrganisation.ADMINISTRATOR);
        String group = db.sql("select id from directory_groups where name = 'rivo-administrators'").query(String.class).single();
        for (String way : List.of(DemoOrganisation.ADMINISTRATORS_DN, "CN=Rivo-Administrators, OU=groups , dc=quillbrook,dc=example", group,
                group.toUpperCase(java.util.Locale.ROOT))) {
            assertThat(new Administrators(settings(way), current, db).hold(imara)).as(way).isTrue();
        }
        for (String other : List.of("cn=rivo-administrators,ou=Laboratories," + DemoOrganisation.BASE_DN, "cn=duty-engineers,ou=Groups,"
                + DemoOrganisation.BASE_DN)) {
            assertThat(new Administrators(settings(other), current, db).hold(imara)).as(other).isFalse();
        }
    }

    @Test
    void theGroupMayBeMadeAnewUnderItsName() throws Exception {
        assertThat(titles()).isEqualTo(200);
        Entry group = server.directory().getEntry(DemoOrganisation.ADMINISTRATORS_DN).duplicate();
        group.setAttribute("entryUUID", "0d54c1b0-0000-0000-0000-000000000999");
        server.directory().delete(DemoOrganisation.ADMINISTRATORS_DN);
        scan();
        assertThat(titles()).isEqualTo(401);
        server.directory().add(group);
        scan();
        server.signIn();
        assertThat(titles()).isEqualTo(200);
    }

    @Test
    void whatOneSignsInWithIsWrittenInNoLog() {
        assertThat(new SessionApi.Credentials("imara.voss", "heron") + " " + new SessionApi.LinkToken("heron")).isEqualTo("credentials token");
    }

    @Test
    void groupsNestedInEachOtherComeToAnEnd() {
        Administrators circle = new Administrators(settings("cn=bench-spares,ou=Groups," + DemoOrganisation.BASE_DN),
                server.bean(CurrentSnapshot.class), server.bean(JdbcClient.class));
        assertThat(circle.hold(id(DemoOrganisation.ADMINISTRATOR))).isFalse();
    }

    @Test
    void theSessionItsTokenAndItsCookieAreNewAtEachSignIn() {
        String before = server.cookieHeaders();
        server.signIn();
        String after = server.cookieHeaders();
        assertThat(after).isNotEqualTo(before);
        for (String name : List.of("rivo=", "XSRF-TOKEN=")) {
            assertThat(after.substring(after.indexOf(name)).split("[;\r]")[0]).isNotEqualTo(before.substring(before.indexOf(name)).split("[;\r]")[0]);
        }
        assertThat(asked("GET", "/api/titles", before).status()).as("the old session has ended").isEqualTo(401);
    }

    private Answer asked(String method, String path, String cookieHeaders) {
        HttpRequest.Builder request = HttpRequest.newBuilder(server.url().resolve(path));
        cookieHeaders.lines().map(l -> l.split(": ", 2)).forEach(h -> request.header(h[0], h[1]));
        return server.sendWithoutCookies(request, method);
    }

    @Test
    void theTokenOfAnotherSessionIsNoToken() {
        String own = server.cookieHeaders();
        String other;
        TestClient second = server.anotherBrowser();
        other = second.signIn().cookieHeaders();
        String mixed = own.lines().findFirst().orElseThrow() + "\r\n" + other.lines().skip(1).findFirst().orElseThrow() + "\r\n";
        assertThat(asked("DELETE", "/api/draft", mixed).code()).isEqualTo("forbidden");
        String bothSwapped = mixed.replaceAll("XSRF-TOKEN=[^;\r]*", "XSRF-TOKEN=" + other.replaceAll("(?s).*X-XSRF-TOKEN: ([^\r]*).*", "$1"));
        assertThat(asked("DELETE", "/api/draft", bothSwapped).code()).as("whatever the cookie says").isEqualTo("forbidden");
        assertThat(asked("DELETE", "/api/draft", own).status()).isEqualTo(200);
    }

    @Test
    void whoIsSignedInIsSaidUntilTheySignOut() {
        Answer who = server.ask("GET", "/api/session", null);
        assertThat(who.body().path("account").asString()).isEqualTo(DemoOrganisation.ADMINISTRATOR);
        assertThat(who.body().path("fullName").asString()).isEqualTo("Imara Voss");
        TestClient second = server.anotherBrowser();
        assertThat(second.ask("GET", "/api/session").status()).as("nobody there").isEqualTo(204);
        second.signIn();
        List<String> both = sessions();
        assertThat(second.ask("DELETE", "/api/session").status()).isEqualTo(204);
        assertThat(second.ask("GET", "/api/session").status()).isEqualTo(204);
        assertThat(second.ask("GET", "/api/titles").status()).isEqualTo(401);
        assertThat(sessions()).hasSize(both.size() - 1);
        assertThat(titles()).as("the other one goes on").isEqualTo(200);
    }

    /** Whoever knows the password is never slowed down by having signed in often. */
    @Test
    void rightPasswordsDoNotCountAsTries() {
        for (int i = 0; i < 12; i++) {
            assertThat(server.anotherBrowser().ask("POST", "/api/session", Map.of("account", DemoOrganisation.ADMINISTRATOR, "password",
                    TestServer.PASSWORD)).status()).as("time %d", i).isEqualTo(200);
        }
    }

    @Test
    void onesSessionsAreListedAndEnded() {
        List<String> before = sessions();
        TestClient second = server.anotherBrowser();
        second.signIn();
        List<String> added = sessions();
        added.removeAll(before);
        assertThat(added).hasSize(1);
        String other = added.get(0);
        assertThat(second.ask("GET", "/api/titles").status()).isEqualTo(200);
        assertThat(server.ask("DELETE", "/api/sessions/" + other, null).status()).isEqualTo(204);
        assertThat(second.ask("GET", "/api/titles").status()).isEqualTo(401);
        assertThat(server.ask("DELETE", "/api/sessions/" + other, null).code()).isEqualTo("no-session");
        assertThat(sessions()).isEqualTo(before);
        assertThat(titles()).isEqualTo(200);
    }

    private List<String> sessions() {
        List<String> ids = new ArrayList<>();
        server.ask("GET", "/api/sessions", null).body().forEach(one -> ids.add(one.path("id").asString()));
        return ids;
    }

    @Test
    void aNameOfMegabytesIsNeitherTakenNorRemembered() {
        Answer answer = server.ask("POST", "/api/session", Map.of("account", "a".repeat(8 << 20), "password", "x"));
        assertThat(answer.status()).isEqualTo(413);
        assertThat(server.ask("POST", "/api/session", Map.of("account", "a".repeat(100_000), "password", "x")).code())
                .isEqualTo("wrong-sign-in");
    }

    @Test
    void whoeverSignsInToTheirShelfIsToldWhoTheyAreAndIsNoAdministratorThere() {
        TestClient own = server.anotherBrowser();
        Answer answer = own.ask("POST", "/api/shelf/session", Map.of("account", "imara.voss", "password", TestServer.PASSWORD));
        assertThat(answer.status()).isEqualTo(200);
        assertThat(answer.body().path("account").asString()).isEqualTo("imara.voss");
        assertThat(answer.body().path("administrator").asBoolean()).isFalse();
        assertThat(own.ask("GET", "/api/titles", null).status()).as("nothing else is open").isEqualTo(403);
    }
}
