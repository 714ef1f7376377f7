package rivo.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.assertions.LocatorAssertions;
import com.microsoft.playwright.options.AriaRole;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;

/** Assigning to anybody in the real interface, from choosing whom to the device that has it. */
class AssignTest extends BrowserTest {

    private static final double DEVICE_DONE = 45_000;

    private static LocatorAssertions.ContainsTextOptions within(double milliseconds) {
        return new LocatorAssertions.ContainsTextOptions().setTimeout(milliseconds);
    }

    private Locator sheet() {
        return region("Assignment");
    }

    private void intent(String name) {
        sheet().getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(Pattern.compile("^" + name))).first().click();
    }

    private void findImara() {
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Find a device"))).click();
        page.getByLabel("Find a device, a person, a title or an audience").fill("imara voss");
        page.locator("#found [role=option]", new Page.LocatorOptions().setHasText("Imara Voss")).first().click();
    }

    private Locator thisEdit() {
        return region("This edit");
    }

    /** Keeps the sheet in the draft, and waits until it is there. */
    private void keep() {
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Keep in the draft"))).click();
        assertThat(sheet()).isHidden();
    }

    private void publish(String why) {
        button("Publish…").click();
        page.getByLabel("Why is this changed?").fill(why);
        button("Publish").click();
        assertThat(page.getByText("is published.").first()).isVisible();
    }

    /** Opens the page of an audience by its place in the list. */
    private void audience(String name) {
        page.navigate("/audiences?q=" + name);
        region("All audiences").getByRole(AriaRole.LINK, new Locator.GetByRoleOptions().setName(Pattern.compile("^" + name))).click();
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName(name).setExact(true))).isVisible();
    }

    private void assignTo(String title) {
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Assign…"))).first().click();
        pick("A title", title);
        assertThat(sheet()).isVisible();
    }

    @Test
    @Order(1)
    void aGroupIsLookedThroughAndRequiredButForThoseOfAnother() {
        comeBack();
        audience("loan-pool");
        assertThat(region("Through what it holds them")).containsText("reception-loans");
        assertThat(region("Whom it holds")).containsText("listed here");
        page.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Is this one in?")).fill("QB-CUS-001");
        page.locator("[role=option]:visible").first().click();
        assertThat(page.getByText("is listed in reception-loans, which is in loan-pool.")).isVisible();
        assignTo("valvewright");
        assertThat(sheet()).containsText("Require Valvewright CAD for loan-pool");
        assertThat(thisEdit()).containsText("1 gain");
        assertThat(thisEdit()).containsText("Behind fences (Laboratories) 1 get nothing of it");
        button("make it binding").click();
        assertThat(thisEdit()).containsText("2 gain");
        button("exclude…").click();
        sheet().getByText("Groups", new Locator.GetByTextOptions().setExact(true)).click();
        pick("Exclude", "reception-loans");
        assertThat(sheet()).containsText("takes 1 out");
        assertThat(thisEdit()).containsText("1 gain");
        thisEdit().getByText("1 gain").click();
        Locator device = page.getByRole(AriaRole.DIALOG).getByRole(AriaRole.LINK);
        assertThat(device).hasText(Pattern.compile("QB-LAB-.*"));
        String name = device.textContent();
        page.keyboard().press("Escape");
        keep();
        assertThat(region("Draft")).containsText("1 gain");
        publish("Drawings on what the laboratories lend out");
        page.navigate("/fleet?q=" + name);
        page.locator("[data-index='0'] a").click();
        assertThat(region("In place")).containsText("Valvewright CAD", within(DEVICE_DONE));
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    @Order(2)
    void aCollectionIsWrittenAsClausesAndOffered() {
        comeBack();
        page.navigate("/audiences/new");
        page.getByLabel("Name", new Page.GetByLabelOptions().setExact(true)).fill("Billing and finance");
        button("Any of…").click();
        Locator attribute = page.getByLabel("Attribute");
        attribute.first().selectOption("name");
        page.getByLabel("Operator").first().selectOption("sw");
        page.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Value of name")).fill("QB-CUS");
        button("add to these").click();
        attribute.nth(1).selectOption("ou");
        page.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName("Value of ou")).fill("Finance");
        page.locator("[role=option]:visible").first().click();
        Locator text = page.getByLabel("The same as text");
        assertThat(text).hasValue(Pattern.compile("name sw \"QB-CUS\" or ou eq \"ou=Finance.*\""));
        assertThat(region("Who is in it")).containsText("12 devices");
        text.fill("name sw \"QB-CUS\" or ou eq");
        assertThat(page.getByText("expected a text in double quotes")).isVisible();
        text.fill("name sw \"QB-CUS\"");
        assertThat(region("Who is in it")).containsText("10 devices");
        button("paste host names…").click();
        page.getByLabel("Host names", new Page.GetByLabelOptions().setExact(true)).fill("QB-LAB-001\nqb-lab-001.quillbrook.example\nmoon # nowhere");
        assertThat(page.getByText("1 matched · 1 unknown · 0 doubtful · 1 double")).isVisible();
        button("Take 1 device").click();
        assertThat(region("Who is in it")).containsText("11 devices");
        keep();
        assertThat(region("Draft")).containsText("Add the collection Billing and finance");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Assign…"))).click();
        pick("A title", "dosecalc");
        intent("Offer");
        assertThat(thisEdit()).containsText("newly offered");
        keep();
        publish("Doses for whoever wants to know");
        page.navigate("/fleet?title=dosecalc&outcome=available");
        assertThat(page.locator("[data-index='0'] a")).isVisible();
        page.locator("[data-index='0'] a").click();
        assertThat(page.getByText("Offered").first()).isVisible();
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    @Order(3)
    void whatIsAssignedToAPersonFollowsThemOntoTheirDevice() {
        comeBack();
        page.navigate("/reach");
        findImara();
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Imara Voss"))).isVisible();
        assertThat(region("What they belong to")).containsText("through technology-desk");
        assignTo("brookmap");
        assertThat(sheet().getByRole(AriaRole.RADIO, new Locator.GetByRoleOptions().setName(Pattern.compile("^the person")))).isChecked();
        assertThat(thisEdit()).containsText("gain");
        sheet().getByLabel("Release").selectOption("=2.8");
        assertThat(sheet()).containsText("2.8 on");
        keep();
        publish("Maps for Imara, of the release that she knows");
        page.navigate("/audiences");
        findImara();
        Locator devices = region("Devices");
        assertThat(devices).containsText("Brookmap Studio");
        devices.getByRole(AriaRole.LINK).first().click();
        assertThat(region("In place")).containsText("Brookmap Studio", within(DEVICE_DONE));
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Brookmap Studio"))).click();
        assertThat(region("Why")).containsText("2.8");
        assertThat(browser.complaints()).isEmpty();
    }

    /** Only one of them is signed in at a time. */
    @Test
    @Order(3)
    void eachOfTwoPeopleWhoShareADeviceHasTheirsOnceTheySignIn() {
        comeBack();
        page.navigate("/fleet");
        String shared = page.evaluate("async () => { const rows = (await (await fetch('/api/devices?q=QB-NET&limit=500')).json()).rows; "
                + "return rows.concat((await (await fetch('/api/devices?q=QB-LAB&limit=500')).json()).rows).find(row => row.people.length === 2).id }").toString();
        page.navigate("/reach/shift-board?assign=new&for=device:" + shared);
        assertThat(thisEdit()).containsText("2 gain");
        keep();
        publish("The shift board on a device that two people share");
        page.navigate("/fleet/" + shared);
        Locator lines = page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Shift board")));
        assertThat(lines).hasCount(2);
        assertThat(region("Waiting")).containsText("waits for the next sign-in of", within(DEVICE_DONE));
        assertThat(region("In place").getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName(Pattern.compile("^Shift board"))))
                .hasCount(2, new LocatorAssertions.HasCountOptions().setTimeout(3 * DEVICE_DONE));
        lines.nth(1).click();
        assertThat(region("Why")).containsText("Why Shift board 1.2 for ");
        button("Whole log").click();
        assertThat(region("Why")).containsText("done");
        page.getByText("What it is and belongs to").click();
        assertThat(region("People")).containsText("signed in");
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    @Order(4)
    void aRemovalEverywhereStopsAtFencesUnlessItIsBinding() {
        comeBack();
        page.navigate("/reach/tarnlog?assign=new&for=all-devices");
        intent("Remove");
        assertThat(thisEdit()).containsText("Behind fences");
        button("make it binding").click();
        assertThat(thisEdit()).not().containsText("Behind fences");
        assertThat(sheet()).containsText("Binding: it crosses fences");
        page.keyboard().press("Control+Enter");
        assertThat(sheet()).isHidden();
        assertThat(region("Draft")).containsText("Remove, binding Tarnlog Viewer on Every device");
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Tarnlog Viewer"))).isVisible();
        button("Look through").click();
        button("Discard the whole draft").click();
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    @Order(5)
    void aWaveIsOpenedByHandAndTheAssignmentEnded() {
        comeBack();
        page.navigate("/reach/ledgerfen");
        Locator later = page.getByText("later").first();
        assertThat(later).isVisible();
        page.navigate("/reach/ledgerfen?assign=ledgerfen-waves");
        Locator waves = region("Waves");
        assertThat(waves).containsText("Pilot devices");
        waves.getByText("open", new Locator.GetByTextOptions().setExact(true)).nth(2).click();
        assertThat(thisEdit()).containsText("gain");
        assertThat(thisEdit()).not().containsText("0 gain");
        keep();
        assertThat(region("Draft")).containsText("gain");
        page.navigate("/reach/ledgerfen?assign=ledgerfen-waves");
        button("End…").click();
        button("End, and keep it").click();
        assertThat(region("Draft")).containsText("End Ledgerfen");
        button("Look through").click();
        button("Discard the whole draft").click();
        assertThat(browser.complaints()).isEmpty();
    }

    private void openDevice(String name) {
        page.navigate("/fleet?q=" + name);
        page.locator("[data-index='0'] a").click();
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName(name))).isVisible();
    }

    @Test
    @Order(6)
    void aContestedPairIsSeenAsContestedAndSettledDownToTheDevice() {
        comeBack();
        openDevice("QB-LAB-005");
        page.keyboard().press("a");
        pick("A title", "kingfisher");
        assertThat(sheet()).containsText("Require Kingfisher Meter Reader for QB-LAB-005");
        keep();
        assertThat(region("Draft")).containsText("1 edit");
        Locator across = region("Across the map");
        assertThat(across).containsText("QB-LAB-005");
        assertThat(across).containsText("draft");
        across.getByText("show on the map").first().click();
        assertThat(across.getByText("hide")).isVisible();
        assertThat(page.locator(".lit").first()).isVisible();
        assertThat(region("Draft")).containsText("1 gain");
        publish("A reader for the bench");
        openDevice("QB-LAB-005");
        page.keyboard().press("a");
        pick("A title", "kingfisher");
        intent("Remove");
        assertThat(thisEdit()).containsText("1 newly contested");
        keep();
        publish("No readers on benches");
        openDevice("QB-LAB-005");
        assertThat(region("Needs attention")).containsText("2 level assignments disagree; left as it is");
        page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Kingfisher"))).click();
        Locator rung = region("Why").getByRole(AriaRole.LISTITEM).filter(new Locator.FilterOptions().setHasText("Require"));
        rung.getByText("settle…").click();
        sheet().getByRole(AriaRole.BUTTON, new Locator.GetByRoleOptions().setName("change").setExact(true)).click();
        sheet().getByLabel("Priority").fill("600");
        assertThat(thisEdit()).containsText("1 settled");
        keep();
        publish("The bench needs it");
        openDevice("QB-LAB-005");
        assertThat(region("In place")).containsText("Kingfisher Meter Reader", within(DEVICE_DONE));
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    @Order(7)
    void whatFollowsThePeopleOfAGroupComesOntoADeviceThatTheyShareWithOthers() {
        comeBack();
        audience("lab-analysts");
        assertThat(region("Whom it holds")).containsText("listed here");
        assignTo("kingfisher");
        assertThat(sheet().getByRole(AriaRole.RADIO, new Locator.GetByRoleOptions().setName(Pattern.compile("^the person")))).isChecked();
        button("make it binding").click();
        thisEdit().getByText(Pattern.compile("^[0-9]+ gain")).click();
        Locator devices = page.getByRole(AriaRole.DIALOG).getByRole(AriaRole.LINK);
        assertThat(devices.first()).isVisible();
        List<String> names = devices.allTextContents();
        page.keyboard().press("Escape");
        keep();
        publish("Readers follow the analysts");
        boolean shared = false;
        for (String name : names) {
            openDevice(name);
            Locator line = page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Kingfisher")));
            assertThat(line).isVisible();
            if (page.getByText(Pattern.compile("and 1 more")).count() > 0) {
                shared = true;
                assertThat(region("In place")).containsText("Kingfisher Meter Reader", within(DEVICE_DONE));
                line.click();
                assertThat(region("Why")).containsText("Require · lab-analysts");
                break;
            }
        }
        assertThat(shared).as("one of %s is used by two people", names).isTrue();
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    @Order(8)
    void whatIsWrittenIsNotLostAndEachScreenIsFreeOfSeriousFaults() {
        comeBack();
        page.navigate("/reach/siltscope?assign=new&for=all-devices");
        button("change").click();
        page.getByPlaceholder("such as the number of the change that approved it").fill("CHG-2041");
        assertThat(thisEdit()).containsText("gain");
        page.reload();
        assertThat(sheet()).containsText("Note: CHG-2041.");
        for (String theme : new String[] {"light", "dark"}) {
            page.evaluate("theme => localStorage.setItem('rivo.theme', theme)", theme);
            page.navigate("/reach/siltscope?assign=new&for=all-devices");
            assertThat(thisEdit()).containsText("gain");
            button("change").click();
            assertThat(browser.faults(theme)).as("the sheet, %s", theme).isEmpty();
            audience("bench-spares");
            assertThat(page.getByText("hold each other: all of them hold the same")).isVisible();
            assertThat(browser.faults(theme)).as("a group, %s", theme).isEmpty();
            page.navigate("/audiences/collection%3Apilot-devices");
            assertThat(region("Who is in it")).containsText("device");
            assertThat(browser.faults(theme)).as("a collection, %s", theme).isEmpty();
            page.navigate("/fleet?q=QB-LAB-001");
            page.locator("[data-index='0'] a").click();
            page.getByText("What it is and belongs to").click();
            assertThat(page.getByText("Facts and software")).isVisible();
            assertThat(browser.faults(theme)).as("what a device belongs to, %s", theme).isEmpty();
        }
        assertThat(browser.complaints()).isEmpty();
    }
}
