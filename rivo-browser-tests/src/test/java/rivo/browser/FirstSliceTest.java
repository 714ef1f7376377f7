package rivo.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;

/** The whole way in the real interface: from signing in to a device that has received what was assigned. */
class FirstSliceTest extends BrowserTest {

    private static final double FIVE_SECONDS = 5000;
    private static final double DEVICE_DONE = 45_000;

    private static LocatorAssertions.IsVisibleOptions within(double milliseconds) {
        return new LocatorAssertions.IsVisibleOptions().setTimeout(milliseconds);
    }

    private Locator band(String name) {
        return page.getByRole(AriaRole.TREEITEM, new Page.GetByRoleOptions().setName(Pattern.compile("^" + name)));
    }

    @Test
    @Order(1)
    void aWrongPasswordIsSaidAndTheRightOneLeadsToWhatWasAskedFor() {
        page.navigate("/fleet");
        page.getByLabel("Account name").fill(demo.account());
        page.getByLabel("Password").fill("wrong");
        button("Sign in").click();
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("The name or the password is wrong");
        assertThat(browser.faults("light")).isEmpty();
        page.getByLabel("Password").fill(demo.password());
        button("Sign in").click();
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Fleet"))).isVisible();
    }

    @Test
    @Order(2)
    void requiringATitleOnAnOuReachesADeviceWithinSecondsAndIsDone() {
        comeBack();
        page.navigate("/reach/dosecalc");
        band("Planning").click();
        page.keyboard().press("r");
        Locator draft = page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Draft"));
        assertThat(draft).containsText("rehearsed on 60 devices: 3 gain");
        button("Publish…").click();
        page.getByLabel("Why is this changed?").fill("Planning doses by the numbers");
        button("Publish").click();
        assertThat(page.getByText("is published.").first()).isVisible();
        page.navigate("/fleet?title=dosecalc&outcome=required&q=planning");
        openFirst();
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Dosecalc"))).click();
        Locator why = page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Why"));
        assertThat(why).containsText("at Planning, says so");
        // The device has heard of it: its log is not empty any more.
        assertThat(why.getByText("Whole log")).isVisible(within(FIVE_SECONDS));
        Locator done = page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("In place"))
                .getByText("Dosecalc");
        assertThat(done).isVisible(within(DEVICE_DONE));
        assertThat(millisecondsFromPublishingToFirstReport()).isBetween(0.0, FIVE_SECONDS);
        assertThat(browser.complaints()).isEmpty();
    }

    /** The first device of the list: the list stands, and can be acted on, until the device's page has come. */
    private void openFirst() {
        page.locator("[data-index='0'] a").click();
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName(Pattern.compile("^QB-")))).isVisible();
    }

    /** By the server's own record: from the change that decides to the first line of the device's log. */
    private double millisecondsFromPublishingToFirstReport() {
        return ((Number) page.evaluate("""
                async () => {
                  const device = location.pathname.split('/').pop()
                  const why = await (await fetch(`/api/devices/${device}/titles/dosecalc`)).json()
                  const decided = why.rungs.find(rung => rung.verdict === 'decides')
                  return Date.parse(why.log.at(-1).at) - Date.parse(decided.since)
                }""")).doubleValue();
    }

    @Test
    @Order(3)
    void everyPageIsFreeOfSeriousFaultsInBothThemes() {
        signIn();
        for (String theme : new String[] {"light", "dark"}) {
            page.evaluate("theme => localStorage.setItem('rivo.theme', theme)", theme);
            page.navigate("/reach/siltscope");
            band("Leakage crews").click();
            page.keyboard().press("x");
            assertThat(button("Look through")).isVisible();
            // Until what decides there has come, the part before stays, dimmed.
            assertThat(region("Leakage crews")).isVisible();
            assertThat(browser.faults(theme)).as("the map, %s", theme).isEmpty();
            page.keyboard().press("l");
            assertThat(page.getByText("What this draft would do")).isVisible();
            assertThat(browser.faults(theme)).as("looking through, %s", theme).isEmpty();
            page.keyboard().press("Escape");
            assertThat(page.getByText("What this draft would do")).isHidden();
            page.keyboard().press("p");
            assertThat(page.getByLabel("Why is this changed?")).isVisible();
            assertThat(browser.faults(theme)).as("publishing, %s", theme).isEmpty();
            page.keyboard().press("Escape");
            page.navigate("/reach/siltscope?as=table");
            assertThat(page.getByRole(AriaRole.TREEGRID)).isVisible();
            assertThat(browser.faults(theme)).as("the table, %s", theme).isEmpty();
            page.navigate("/fleet");
            page.waitForSelector("[data-index='0'] a");
            assertThat(browser.faults(theme)).as("the fleet, %s", theme).isEmpty();
            openFirst();
            assertThat(page.getByText("last seen")).isVisible();
            assertThat(browser.faults(theme)).as("a device, %s", theme).isEmpty();
            page.keyboard().press("Control+k");
            page.getByLabel("Find a device, a person, a title or an audience").fill("lab");
            assertThat(page.getByRole(AriaRole.OPTION).first()).isVisible();
            assertThat(browser.faults(theme)).as("the search, %s", theme).isEmpty();
            page.keyboard().press("Escape");
        }
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    @Order(4)
    void theKeysWalkTheMapAndTheSearchLeadsThere() {
        comeBack();
        page.navigate("/reach/siltscope");
        band("Quillbrook Water").click();
        page.keyboard().press("ArrowRight");
        assertThat(page).hasURL(Pattern.compile("ou="));
        assertThat(page.locator("[role=treeitem][aria-selected=true]")).hasAttribute("aria-label",
                Pattern.compile("^Corporate"));
        page.keyboard().press("ArrowDown");
        page.keyboard().press("Enter");
        assertThat(page.getByText("Escape goes out")).isVisible();
        page.keyboard().press("Escape");
        assertThat(page).not().hasURL(Pattern.compile("in="));
        page.keyboard().press("Control+k");
        page.getByLabel("Find a device, a person, a title or an audience").fill("QB-LAB-003");
        assertThat(page.getByRole(AriaRole.OPTION)).hasCount(1);
        page.keyboard().press("Enter");
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("QB-LAB-003"))).isVisible();
        page.keyboard().press("?");
        assertThat(page.getByText("Keys that work here")).isVisible();
    }

    @Test
    @Order(5)
    void aDraftSurvivesTheBrowserAndCanBeDiscarded() {
        comeBack();
        page.navigate("/reach/siltscope");
        band("Finance").click();
        page.keyboard().press("r");
        assertThat(button("Look through")).isVisible();
        shut();
        open();
        signIn();
        assertThat(button("Look through")).isVisible();
        page.keyboard().press("l");
        button("Discard the whole draft").click();
        assertThat(button("Look through")).isHidden();
    }

    @Test
    @Order(5)
    void whatIsTypedIsLostByNoKey() {
        comeBack();
        page.navigate("/reach/siltscope");
        band("Finance").click();
        page.keyboard().press("r");
        button("Publish…").click();
        Locator why = page.getByLabel("Why is this changed?");
        why.fill("For the auditors");
        page.keyboard().press("Escape");
        button("Go on editing").click();
        assertThat(why).hasValue("For the auditors");
        page.keyboard().press("Escape");
        button("Discard it").click();
        assertThat(why).isHidden();
        button("Publish…").click();
        page.keyboard().press("Escape");
        assertThat(why).isHidden();
        page.navigate("/fleet");
        page.getByLabel("Narrow the list by name, person or OU").fill("LAB");
        page.keyboard().press("Control+z");
        assertThat(region("Draft")).containsText("Draft, 1 edit");
        page.keyboard().press("Escape");
        page.getByLabel("Narrow the list by name, person or OU").blur();
        page.keyboard().press("Control+z");
        assertThat(region("Draft")).containsText("Draft, empty again");
        page.keyboard().press("?");
        Locator words = region("Words");
        page.getByLabel("Find a word").fill("fence");
        assertThat(words.getByText("A border around an OU")).isVisible();
        page.keyboard().press("Escape");
        assertThat(words).isHidden();
    }

    /** Else none of the sweeps could fail. */
    @Test
    @Order(6)
    void faultsThatArePlantedAreFound() {
        page.navigate("/");
        page.getByLabel("Account name").waitFor();
        page.evaluate("() => document.querySelector('main, form').insertAdjacentHTML('beforeend', '<button type=\"button\"></button>')");
        assertThat(browser.faults("light")).singleElement().asString().startsWith("button-name");
        page.evaluate("() => Object.assign(document.querySelector('label').style, {color: '#ccc', background: '#fff'})");
        assertThat(browser.faults("dark")).singleElement().asString().startsWith("color-contrast");
    }

    @Test
    @Order(6)
    void aDeviceThatDoesNotExistIsSaid() {
        comeBack();
        page.navigate("/fleet/no-such-device");
        assertThat(page.getByText("There is no device no-such-device")).isVisible();
        page.navigate("/reach/moonware");
        assertThat(page.getByText("There is no title moonware")).isVisible();
        page.navigate("/nowhere");
        assertThat(page.getByText("There is no such page")).isVisible();
    }

    @Test
    @Order(7)
    void ctrlCStopsEverythingAndASecondStartKeepsWhatWasDone() throws IOException {
        assertThat(demo.stop()).isLessThan(15);
        demo = Demo.start(data.resolve("demo"));
        shut();
        open();
        signIn();
        page.navigate("/reach/dosecalc");
        band("Planning").click();
        assertThat(page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName("Planning")))
                .containsText("Require · Planning");
    }
}
