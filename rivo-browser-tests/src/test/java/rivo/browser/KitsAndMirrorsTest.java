package rivo.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Mouse;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.BoundingBox;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;

/** Kits, choices, licence texts, seats and mirrors, as an administrator uses them. */
class KitsAndMirrorsTest extends BrowserTest {

    @BeforeEach
    void enter() {
        comeBack();
    }

    private List<String> order() {
        return region("Titles").getByRole(AriaRole.LINK).allInnerTexts();
    }

    private Locator exactly(String region) {
        return page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName(region).setExact(true));
    }

    /** By the mouse, which moves on its way as a hand does. */
    private void drag(Locator from, Locator to) {
        BoundingBox start = from.boundingBox();
        BoundingBox end = to.boundingBox();
        page.mouse().move(start.x + start.width / 2, start.y + start.height / 2);
        page.mouse().down();
        page.mouse().move(end.x + start.width, end.y + end.height / 2, new Mouse.MoveOptions().setSteps(8));
        page.mouse().up();
    }

    private void publish(String why) {
        button("Publish…").click();
        page.getByLabel("Why is this changed?").fill(why);
        button("Publish").click();
        assertThat(page.getByText("is published.").first()).isVisible();
    }

    @Test
    @Order(1)
    void aKitIsMadeOrderedByKeysAndByDragAndAssigned() {
        page.navigate("/catalogue");
        button("New kit…").click();
        page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Front desk");
        pick("Add a title", "fernote");
        pick("Add a title", "tarnlog");
        pick("Add a title", "ledgerfen");
        button("Save").click();
        assertThat(page).hasURL(Pattern.compile("/catalogue/kits/front-desk$"));
        assertThat(region("Titles").getByRole(AriaRole.LISTITEM)).hasCount(3);

        region("Titles").locator("[data-line]").nth(2).focus();
        page.keyboard().press("Alt+ArrowUp");
        assertThat(region("Titles").getByRole(AriaRole.LISTITEM).nth(1)).containsText("Ledgerfen");
        assertThat(order()).containsExactly("Fernote Reader", "Ledgerfen", "Tarnlog Viewer");

        drag(region("Titles").locator("[data-grip]").nth(2), region("Titles").getByRole(AriaRole.LISTITEM).nth(0));
        assertThat(region("Titles").getByRole(AriaRole.LISTITEM).nth(0)).containsText("Tarnlog Viewer");
        page.reload();
        assertThat(region("Titles").getByRole(AriaRole.LISTITEM).nth(0)).containsText("Tarnlog Viewer");
        assertThat(order()).as("it is kept").containsExactly("Tarnlog Viewer", "Fernote Reader", "Ledgerfen");

        region("Titles").locator("[data-grip]").nth(0).focus();
        page.keyboard().press("Space");
        assertThat(page.getByText("Tarnlog Viewer is lifted, from place 1 of 3.")).isAttached();
        page.keyboard().press("ArrowDown");
        assertThat(page.getByText("Tarnlog Viewer is over place 2 of 3.")).isAttached();
        page.keyboard().press("Space");
        assertThat(region("Titles").getByRole(AriaRole.LISTITEM).nth(1)).containsText("Tarnlog Viewer");

        pick("Find an OU to assign it to", "technol");
        button("Require on Technology").click();
        assertThat(region("Draft")).containsText("Require Front desk on Technology");
        publish("The front desk moves");
        assertThat(region("Assigned")).containsText("Require on Technology");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    @Order(2)
    void aTitleThatGoesIntoAnAssignedKitIsRehearsedFirst() {
        page.navigate("/catalogue/kits/front-desk");
        assertThat(page.getByText("Installed in this order")).isVisible();
        page.keyboard().press("e");
        pick("Add a title", "dosecalc");
        assertThat(page.getByText("get Dosecalc 1.4")).isVisible();
        assertThat(button("Save")).isDisabled();
        page.getByLabel("Why?").fill("They dose as well");
        button("Save").click();
        assertThat(region("Titles").getByRole(AriaRole.LISTITEM)).hasCount(4);
    }

    @Test
    @Order(3)
    void whatAnAssignmentFixesOfAChoiceReachesTheSteps() {
        page.navigate("/reach/brookmap");
        page.getByRole(AriaRole.TREEITEM, new Page.GetByRoleOptions().setName(Pattern.compile("^Trunk mains"))).click();
        page.keyboard().press("r");
        assertThat(region("Draft")).containsText("Require Brookmap Studio on Trunk mains");
        button("Choose…").click();
        button("German 38.0 KiB").click();
        button("Choose").click();
        assertThat(page.getByText("Set: languages English, German.")).isVisible();
        button("Look through").click();
        assertThat(page.getByText("languages en,de")).isVisible();
        page.keyboard().press("Escape");
        publish("German for the trunk mains");

        page.navigate("/catalogue/brookmap");
        assertThat(region("Before it is assigned")).containsText("Trunk mains gets languages English, German");
        button("Set for a person…").click();
        pick("Find a person", "imara voss");
        button("Welsh 38.0 KiB").click();
        button("Set").click();
        assertThat(region("Before it is assigned")).containsText("imara.voss gets languages English, Welsh");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    @Order(4)
    void aLicenceTextStandsInTheWayUntilItIsAccepted() {
        page.navigate("/catalogue/dosecalc");
        assertThat(region("Before it is assigned")).isVisible();
        page.keyboard().press("e");
        page.getByLabel("Licence text").fill("For the dosing of chlorine only.");
        button("Save").click();
        assertThat(region("Before it is assigned")).containsText("Licence text not accepted");
        page.navigate("/reach/dosecalc");
        page.getByRole(AriaRole.TREEITEM, new Page.GetByRoleOptions().setName(Pattern.compile("^Billing"))).click();
        page.keyboard().press("r");
        assertThat(region("Draft")).containsText("The licence text of Dosecalc has not been accepted");
        assertThat(button("Publish…")).isDisabled();
        page.navigate("/catalogue/dosecalc");
        button("Read it, and accept").click();
        assertThat(page.getByText("For the dosing of chlorine only.")).isVisible();
        button("Accept").click();
        assertThat(region("Before it is assigned")).containsText("Licence text accepted");
        assertThat(button("Publish…")).isEnabled();
        page.keyboard().press("Control+z");
        assertThat(region("Draft")).containsText("empty again");
        page.keyboard().press("Control+y");
        assertThat(region("Draft")).containsText("Require Dosecalc on Billing");
        button("Undo").click();
        button("Close").click();
        assertThat(region("Draft")).isHidden();
    }

    @Test
    @Order(5)
    void whoHoldsTheSeatsAndWhomNothingFitsIsListed() {
        page.navigate("/catalogue/valvewright");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("120 seats"))).click();
        Locator window = page.getByRole(AriaRole.DIALOG);
        assertThat(window).containsText("Who holds the seats of Valvewright CAD");
        assertThat(window.getByRole(AriaRole.LINK).first()).isVisible();
        page.keyboard().press("Escape");

        page.navigate("/catalogue/tarnlog");
        button("Edit: Fits").click();
        page.getByLabel("Devices where").fill("os.family eq \"windows\" and ramGiB ge 4000");
        page.getByLabel("Why?").fill("Only the largest");
        button("Save").click();
        region("Before it is assigned").getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("60").setExact(true))
                .click();
        assertThat(page.getByRole(AriaRole.DIALOG)).containsText("needs ramGiB ge 4000, has");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    @Order(6)
    void mirrorsSayWhatTheyHoldAndAreSetUpAndTakenAway() {
        page.navigate("/mirrors");
        assertThat(exactly("Hartsmere")).containsText(Pattern.compile("holds 3\\d of 3\\d files"));
        page.keyboard().press("n");
        page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Van 3");
        page.getByLabel("Address").fill("\\\\server\\share");
        button("Save").click();
        assertThat(page.getByText("a drive letter or a share does not do")).isVisible();
        page.getByLabel("Address").fill("http://127.0.0.1:1");
        page.getByLabel("Devices where").fill("name eq \"QB-VAN-003\"");
        button("Save").click();
        assertThat(exactly("Van 3")).containsText("It does not answer at http://127.0.0.1:1");
        button("Set up nginx…").click();
        assertThat(page.getByText("Download rivo-mirror.conf")).isVisible();
        page.keyboard().press("Escape");
        button("Delete…").click();
        button("Delete").click();
        assertThat(page.getByRole(AriaRole.NAVIGATION, new Page.GetByRoleOptions().setName("Mirrors"))).not().containsText("Van 3");
    }

    @Test
    @Order(7)
    void aWindowThatIsTooShortForATitleIsPointedOutOnItsPage() {
        page.navigate("/windows");
        assertThat(exactly("Control rooms")).containsText("Tue, Thu at 02:00 for 45 min");
        page.keyboard().press("n");
        page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Benches");
        page.getByLabel("Devices where").fill("name sw \"QB-LAB\"");
        page.getByLabel("For, in minutes").fill("10");
        button("Save").click();
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("Choose at least one day.");
        button("Sat").click();
        button("Save").click();
        assertThat(exactly("Benches")).containsText("Sat at 22:00 for 10 min");
        page.navigate("/catalogue/mudview");
        assertThat(region("Before it is assigned")).containsText("20 min at most, but Benches is open 10 min: 16 devices");
        page.navigate("/windows");
        button("Edit Benches").click();
        button("Delete").click();
        assertThat(exactly("Benches")).isHidden();
    }

    @Test
    @Order(8)
    void aSingleCommandIsATitleOfItsOwn() {
        page.navigate("/catalogue");
        assertThat(page.getByText("Siltscope Lab").first()).isVisible();
        page.keyboard().press("n");
        page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Siltscope Lab");
        button("Add to the catalogue").click();
        assertThat(page.getByText("Give it a version.")).isVisible();
        page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Old gauge driver");
        page.getByLabel("Version", new Page.GetByLabelOptions().setExact(true)).fill("1");
        page.getByLabel("Removal command").fill("{uninstaller:Gauge driver} --quiet");
        page.getByLabel("Presence check: its name in the list of installed software").fill("Gauge driver");
        button("Add to the catalogue").click();
        assertThat(page).hasURL(Pattern.compile("/catalogue/old-gauge-driver\\?release=1"));
        assertThat(region("Before it is assigned")).containsText("Removal only");
        assertThat(region("Before it is assigned")).containsText("No content needed");
        region("Steps").getByText("Remove", new Locator.GetByTextOptions().setExact(true)).click();
        assertThat(region("Steps")).containsText("{uninstaller:Gauge driver} --quiet");
        page.navigate("/reach/old-gauge-driver");
        page.getByRole(AriaRole.TREEITEM, new Page.GetByRoleOptions().setName(Pattern.compile("^Quillbrook"))).click();
        page.keyboard().press("x");
        assertThat(region("Draft")).containsText("39 removed");
        page.keyboard().press("Control+z");

        page.navigate("/catalogue/old-gauge-driver");
        button("or write one without a file").click();
        page.getByLabel("Version", new Page.GetByLabelOptions().setExact(true)).fill("2");
        button("Add to the catalogue").click();
        assertThat(page).hasURL(Pattern.compile("/catalogue/old-gauge-driver\\?release=2"));
        assertThat(region("Releases")).containsText("not offered yet");
        assertThat(browser.complaints()).isEmpty();
    }
}
