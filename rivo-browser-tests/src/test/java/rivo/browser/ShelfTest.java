package rivo.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.time.LocalDate;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;

/** The shelf as somebody uses it who has never heard of Rivo: found, taken, watched, given back; and what administrators see of it. */
class ShelfTest extends BrowserTest {

    private static final double ARRIVES = 60_000;
    private static final String PERSON = "rowena.elmby";

    private void enter() {
        page.context().clearCookies();
        page.navigate("/shelf");
        page.getByLabel("Account name").fill(PERSON);
        page.getByLabel("Password").fill(demo.password());
        page.keyboard().press("Enter");
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Hello, Rowena Elmby"))).isVisible();
    }

    /** On this computer, wherever they are signed in meanwhile. */
    private void enterOn(String computer) {
        enter();
        page.getByLabel("On computer").selectOption(computer);
    }

    private Locator offer(String name) {
        return page.getByRole(AriaRole.LISTITEM, new Page.GetByRoleOptions().setName(name));
    }

    private Locator part(String name) {
        return page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName(name));
    }

    private static Locator in(Locator card, String name) {
        return card.getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(Pattern.compile("^" + name)));
    }

    private static LocatorAssertions.ContainsTextOptions inTime() {
        return new LocatorAssertions.ContainsTextOptions().setTimeout(ARRIVES);
    }

    @Test
    @Order(1)
    void anOfferIsFoundTakenWatchedAndGivenBackOnANarrowScreen() {
        page.setViewportSize(360, 740);
        enter();
        assertThat(browser.faults("light")).isEmpty();
        page.evaluate("document.documentElement.className = 'dark'");
        assertThat(browser.faults("dark")).isEmpty();
        page.evaluate("document.documentElement.className = 'light'");
        assertThat((Boolean) page.evaluate("document.documentElement.scrollWidth <= innerWidth")).as("nothing sticks out").isTrue();
        page.getByLabel("What do you need?").fill("loggers");
        assertThat(part("For you").getByRole(AriaRole.LISTITEM)).hasCount(1);
        Locator viewer = offer("Tarnlog Viewer");
        assertThat(viewer).containsText("up to 20 min");
        in(viewer, "Install").click();
        assertThat(in(viewer, "stop")).isVisible();
        // It arrives, leaves the collection of those without it, and with that the offers; what was taken can still be given back.
        assertThat(part("On this computer")).containsText("Tarnlog Viewer", inTime());
        assertThat(part("On this computer")).containsText("you took it on");
        Locator here = part("On this computer");
        in(here, "give it back").click();
        in(here, "Keep it").click();
        in(here, "give it back").click();
        in(here, "Remove it").click();
        assertThat(here).not().containsText("Tarnlog Viewer", inTime());
        assertThat(in(viewer, "Install")).isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(ARRIVES));
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    @Order(2)
    void whatIsForThemAloneArrivesWhileTheyAreSignedInAndAdministratorsSeeIt() {
        enter();
        Locator maps = offer("Brookmap Studio");
        assertThat(maps).containsText("for you alone");
        in(maps, "Install").click();
        assertThat(maps).containsText(Pattern.compile("give it back"), inTime());
        String computer = page.getByLabel("On computer").locator("option:checked").textContent().replace(" (signed in)", "");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Deutsch")).click();
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Guten Tag, Rowena Elmby"))).isVisible();
        assertThat(in(maps, "zurückgeben")).isVisible();
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("English")).click();
        page.navigate("/fleet");
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Hello, Rowena Elmby"))).isVisible();
        button("Sign out").click();
        assertThat(page.getByLabel("Account name")).isVisible();

        comeBack();
        page.navigate("/fleet?q=" + computer);
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(computer)).first().click();
        assertThat(region("In place").getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(Pattern.compile("^Brookmap Studio"))))
                .containsText("taken from the shelf");
        assertThat(browser.complaints()).isEmpty();
    }

    /** Asks for the drawing program, which has to be agreed to. */
    private Locator askFor(String words, String why) {
        Locator card = offer("Valvewright CAD");
        in(card, words).click();
        in(card, "Ask for it").click();
        assertThat(card).containsText("Say in a few words what you need it for.");
        assertThat(card).containsText("Read the licence text and accept it.");
        card.getByLabel("What do you need it for?").fill(why);
        card.getByText("I have read it and accept it").click();
        assertThat(browser.faults("light")).isEmpty();
        in(card, "Ask for it").click();
        assertThat(card).containsText("asked for: waits until it is agreed to");
        return card;
    }

    private Locator asked() {
        comeBack();
        page.navigate("/today");
        return page.getByRole(AriaRole.LISTITEM, new Page.GetByRoleOptions().setName("Rowena Elmby: Valvewright CAD"));
    }

    private void leaveShelf() {
        button("Sign out").click();
        assertThat(page.getByLabel("Account name")).isVisible();
    }

    @Test
    @Order(3)
    void whatHasToBeAgreedToIsAskedForRefusedAskedForAgainAndAgreedTo() {
        page.setViewportSize(360, 740);
        enter();
        String computer = (String) page.getByLabel("On computer").evaluate("one => one.value");
        askFor("Ask for it", "Curious");
        assertThat((Boolean) page.evaluate("document.documentElement.scrollWidth <= innerWidth")).as("nothing sticks out").isTrue();
        leaveShelf();

        page.setViewportSize(1280, 800);
        assertThat(asked()).containsText("“Curious”");
        assertThat(browser.faults("light")).isEmpty();
        in(asked(), "Refuse").click();
        Locator window = page.getByRole(AriaRole.DIALOG);
        in(window, "Refuse").click();
        assertThat(window).containsText("Say why not: whoever asked reads that.");
        window.getByLabel("Why not").fill("A seat is for those who draw.");
        in(window, "Refuse").click();
        assertThat(asked()).hasCount(0);

        enterOn(computer);
        assertThat(offer("Valvewright CAD")).containsText("Not agreed: A seat is for those who draw.");
        askFor("Ask again", "I draw the sampling valves");
        leaveShelf();
        in(asked(), "Agree until").click();
        window.getByLabel("Until the end of").fill(LocalDate.now().plusDays(30).toString());
        in(window, "Agree").click();
        assertThat(asked()).hasCount(0);

        enterOn(computer);
        assertThat(part("On this computer")).containsText("Valvewright CAD", inTime());
        assertThat(offer("Valvewright CAD")).containsText("yours until");
        leaveShelf();
        comeBack();
        page.navigate("/catalogue/valvewright");
        assertThat(page.getByText("agreed by imara.voss").first()).isVisible();
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    @Order(4)
    void aLinkSignsInAndLeavesTheAddressAndAWrongOneSaysWhatToDo() {
        page.context().clearCookies();
        page.navigate("/shelf#in=forged");
        assertThat(page.getByText("This link has been used, or is older than 2 minutes.")).isVisible();
        assertThat(page.getByLabel("Account name")).isVisible();
        // What the device's token would do is done by the password here: who asks for tokens is a device, and tested as one.
        page.route("**/api/shelf/session/link", route -> route.resume(new Route.ResumeOptions().setUrl(route.request().url().replace("/link", ""))
                .setPostData("{\"account\":\"" + PERSON + "\",\"password\":\"" + demo.password() + "\"}")));
        page.navigate("/");
        page.navigate("/shelf#in=token");
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Hello, Rowena Elmby"))).isVisible();
        assertThat(page.url()).doesNotContain("token");
    }
}
