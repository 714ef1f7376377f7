package rivo.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Request;
import com.microsoft.playwright.Route;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.SelectOption;
import java.time.LocalDate;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;

/** The shelf as somebody uses it who has never heard of Rivo: found, taken, watched, given back; and what administrators see of it. */
class ShelfTest extends BrowserTest {

    private static final double ARRIVES = 60_000;
    private static final String PERSON = "rowena.elmby";
    /** Which nobody else uses: they are signed in there all the time, and nothing goes wrong there by chance. */
    private static final String THEIRS = "QB-LAB-004";

    private void enter() {
        page.context().clearCookies();
        page.navigate("/shelf");
        page.getByLabel("Account name").fill(PERSON);
        page.getByLabel("Password").fill(demo.password());
        page.keyboard().press("Enter");
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Hello, Rowena Elmby"))).isVisible();
    }

    /** On their own computer, wherever else they are signed in meanwhile. */
    private void enterOnTheirs() {
        enter();
        chooseTheirs();
    }

    private void chooseTheirs() {
        String option = THEIRS + " (signed in)";
        // Just after the start, the computer has yet to tell who is there.
        assertThat(page.getByLabel("On computer")).containsText(option, inTime());
        page.getByLabel("On computer").selectOption(new SelectOption().setLabel(option));
    }

    private void chooseAnother() {
        Locator computer = page.getByLabel("On computer");
        String another = computer.locator("option").allTextContents().stream().filter(text -> !text.startsWith(THEIRS)).findFirst().orElseThrow();
        computer.selectOption(new SelectOption().setLabel(another));
        assertThat(page.locator("main")).hasAttribute("aria-busy", "false");
        // So that nothing is known of the other ones.
        page.reload();
        assertThat(computer).containsText(another);
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
        enterOnTheirs();
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
        chooseAnother();
        assertThat(maps).containsText("for you alone");
        browser.answersAfter(1000);
        Request taken = page.waitForRequest(request -> request.method().equals("PUT"), () -> {
            chooseTheirs();
            in(maps, "Install").click();
        });
        browser.answersAfter(0);
        assertThat(taken.url()).as("on the computer that is chosen, however late its shelf comes")
                .contains("/on/" + page.getByLabel("On computer").inputValue() + "/");
        assertThat(maps).containsText(Pattern.compile("give it back"), inTime());
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("Deutsch")).click();
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Guten Tag, Rowena Elmby"))).isVisible();
        assertThat(in(maps, "zurückgeben")).isVisible();
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName("English")).click();
        page.navigate("/fleet");
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Hello, Rowena Elmby"))).isVisible();
        button("Sign out").click();
        assertThat(page.getByLabel("Account name")).isVisible();

        comeBack();
        page.navigate("/fleet?q=" + THEIRS);
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(THEIRS)).first().click();
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
        enterOnTheirs();
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

        enterOnTheirs();
        assertThat(offer("Valvewright CAD")).containsText("Not agreed: A seat is for those who draw.");
        askFor("Ask again", "I draw the sampling valves");
        leaveShelf();
        in(asked(), "Agree until").click();
        window.getByLabel("Until the end of").fill(LocalDate.now().plusDays(30).toString());
        in(window, "Agree").click();
        assertThat(asked()).hasCount(0);

        enterOnTheirs();
        assertThat(part("On this computer")).containsText("Valvewright CAD", inTime());
        assertThat(offer("Valvewright CAD")).containsText("yours until");
        leaveShelf();
        comeBack();
        page.navigate("/catalogue/valvewright");
        assertThat(page.getByText("agreed by imara.voss").first()).isVisible();
        assertThat(browser.complaints()).isEmpty();
    }

    /** Lets the browser's clock be behind, so that what is put off by a quarter of an hour is asked again within seconds. */
    private void putOff() {
        page.evaluate("(() => { const now = performance.timeOrigin + performance.now(); const at = performance.now();"
                + "Date.now = () => now + performance.now() - at - 890_000 })()");
        Locator corner = part("Messages from this computer");
        in(corner, "Later").click();
        assertThat(browser.faults("light")).isEmpty();
        corner.getByLabel("Until when").selectOption(new SelectOption().setLabel("in 15 minutes"));
        in(corner, "Put it off").click();
        assertThat(corner).containsText("Put off until", inTime());
    }

    @Test
    @Order(4)
    void aRestartIsPutOffTwiceAndThenDoneOnANarrowScreen() {
        page.setViewportSize(360, 740);
        enterOnTheirs();
        Locator driver = offer("Probewire Driver");
        in(driver, "Install").click();
        Locator corner = part("Messages from this computer");
        assertThat(corner).containsText("Probewire Driver is ready once this computer has restarted.", inTime());
        assertThat(corner).containsText("You can put it off 3 more times.");
        assertThat(driver).containsText("ready after the next restart");
        assertThat((Boolean) page.evaluate("document.documentElement.scrollWidth <= innerWidth")).as("nothing sticks out").isTrue();
        putOff();
        assertThat(corner).containsText("You can put it off 2 more times.", inTime());
        putOff();
        assertThat(corner).containsText("You can put it off once more.", inTime());
        in(corner, "Restart now").click();
        assertThat(in(driver, "give it back")).isVisible(new LocatorAssertions.IsVisibleOptions().setTimeout(ARRIVES));
        assertThat(corner).not().containsText("Probewire");

        comeBack();
        page.setViewportSize(1280, 800);
        page.navigate("/fleet?q=" + THEIRS);
        page.getByRole(AriaRole.LINK, new Page.GetByRoleOptions().setName(THEIRS)).first().click();
        page.getByText("What people were told").click();
        assertThat(page.getByText("The restart was done, for Probewire Driver")).isVisible();
        assertThat(page.getByText(Pattern.compile("Rowena Elmby put the restart off until .*; 2 more allowed"))).isVisible();
        assertThat(browser.faults("light")).isEmpty();
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    @Order(5)
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
        chooseTheirs();
        assertThat(in(offer("Tarnlog Viewer"), "Install")).isVisible();
        String computer = (String) page.getByLabel("On computer").evaluate("one => one.value");

        // An address that anybody could have written shows the title; the computer's own menu takes it.
        page.navigate("/shelf?on=" + computer + "&take=tarnlog");
        assertThat(page).hasURL(Pattern.compile("/shelf\\?on=[^&]*$"));
        assertThat(in(offer("Tarnlog Viewer"), "Install")).isVisible();
        page.navigate("/");
        page.navigate("/shelf?on=" + computer + "&take=tarnlog#in=token");
        assertThat(in(offer("Tarnlog Viewer"), "stop")).isVisible();
    }
}
