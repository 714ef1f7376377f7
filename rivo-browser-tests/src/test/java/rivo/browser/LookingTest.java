package rivo.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.LoadState;
import java.util.List;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;

/** How one looks around: by keys alone, back and forth, live, on small screens. */
class LookingTest extends BrowserTest {

    private void press(String... keys) {
        for (String key : keys) {
            page.keyboard().press(key);
        }
    }

    /** Goes on with Tab until the focus is there. */
    private void tabTo(String selector) {
        for (int i = 0; i < 60; i++) {
            if ((boolean) page.evaluate("selector => document.activeElement.matches(selector)", selector)) {
                return;
            }
            press("Tab");
        }
        throw new AssertionError("Tab does not come to " + selector);
    }

    @Test
    @Order(0)
    void whatIsTypedBeforeTheSearchHasComeGoesIntoItAndNotToTheMap() {
        comeBack();
        page.navigate("/reach/siltscope");
        assertThat(page.getByRole(AriaRole.TREE)).isVisible();
        page.keyboard().press("Control+k");
        page.keyboard().type("rox");
        assertThat(page.getByLabel("Find a device, a person, a title or an audience")).hasValue("rox");
        page.keyboard().press("Escape");
        assertThat(region("Draft")).isHidden();
    }

    @Test
    @Order(1)
    void theKeyboardAloneIsEnoughFromSignInToAPublishedChange() {
        page.navigate("/catalogue");
        page.getByLabel("Account name").waitFor();
        page.keyboard().type(demo.account());
        press("Tab");
        page.keyboard().type(demo.password());
        press("Enter");
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Catalogue"))).isVisible();
        press("/");
        page.keyboard().type("tarnlog");
        assertThat(page.getByText("1 of")).isVisible();
        tabTo("a[href='/catalogue/tarnlog']");
        press("Enter");
        Locator heading = page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Tarnlog Viewer"));
        assertThat(heading).isFocused();
        press("a");
        assertThat(page).hasURL(Pattern.compile("/reach/tarnlog"));
        // The sheet asks for whom as soon as it is there.
        assertThat(region("Assignment").getByRole(AriaRole.COMBOBOX).first()).isFocused();
        tabTo("[role=treeitem]");
        press("ArrowRight", "ArrowDown", "ArrowDown", "ArrowRight");
        assertThat(page.locator("[role=treeitem][aria-selected=true]")).hasAttribute("aria-label", Pattern.compile("^Coldwell Laboratory"));
        press("w");
        assertThat(region("Assignment")).containsText("Require Tarnlog Viewer for Coldwell Laboratory");
        press("Control+Enter");
        assertThat(region("Draft")).containsText("Require Tarnlog Viewer on Coldwell Laboratory");
        assertThat(region("Assignment")).isHidden();
        press("p");
        assertThat(page.getByLabel("Why is this changed?")).isFocused();
        page.keyboard().type("By keys alone");
        press("Tab", "Tab", "Enter");
        assertThat(page.getByText("is published.").first()).isVisible();
        assertThat(browser.complaints()).isEmpty();
    }

    @Test
    @Order(2)
    void backUndoesTheLastLook() {
        comeBack();
        page.navigate("/fleet");
        button("failed").or(page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("failed$")))).first().click();
        assertThat(page).hasURL(Pattern.compile("state=failed"));
        page.getByLabel("Narrow the list by name, person or OU").pressSequentially("lab");
        assertThat(page).hasURL(Pattern.compile("q=lab"));
        page.goBack();
        assertThat(page).hasURL(Pattern.compile("\\?state=failed$"));
        page.goBack();
        assertThat(page).hasURL(Pattern.compile("/fleet$"));
        page.navigate("/catalogue/siltscope?release=4.2.0");
        button("Edit E").click();
        assertThat(page).hasURL(Pattern.compile("open=about"));
        page.goBack();
        assertThat(page.getByRole(AriaRole.DIALOG)).isHidden();
        page.goForward();
        page.getByLabel("Owner").fill("Somebody");
        page.goBack();
        button("Go on editing").click();
        assertThat(page.getByLabel("Owner")).hasValue("Somebody");
        page.goBack();
        button("Discard it").click();
        assertThat(page.getByRole(AriaRole.DIALOG)).isHidden();
    }

    /** Nothing is polled: what changes on the server comes by itself. */
    @Test
    @Order(3)
    void whatSomebodyElseDoesIsOnTheScreenAtOnce() {
        comeBack();
        page.navigate("/catalogue/dosecalc");
        assertThat(page.getByText("Works out doses of chlorine").or(page.getByRole(AriaRole.HEADING,
                new Page.GetByRoleOptions().setName("Dosecalc")))).isVisible();
        page.evaluate("""
                async () => {
                  const page = await (await fetch('/api/titles/dosecalc')).json()
                  page.record.name = 'Dosecalc Works'
                  const token = decodeURIComponent(document.cookie.split('XSRF-TOKEN=')[1].split(';')[0])
                  await fetch('/api/titles/dosecalc', {method: 'PUT', body: JSON.stringify(page),
                    headers: {'Content-Type': 'application/json', 'X-XSRF-TOKEN': token}})
                }""");
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Dosecalc Works"))).isVisible();
    }

    @Test
    @Order(4)
    void theListOfDevicesIsOrderedChosenAndNarrowedToItsColumns() {
        comeBack();
        page.navigate("/fleet");
        Locator list = page.getByRole(AriaRole.GRID);
        page.getByLabel("Sort by device").click();
        page.getByLabel("Sort by device, in ascending order").click();
        assertThat(page).hasURL(Pattern.compile("order=-name"));
        assertThat(list.getByRole(AriaRole.ROW).first()).containsText("QB-TRW");
        list.focus();
        press("Space", "Shift+ArrowDown", "Shift+ArrowDown");
        assertThat(page.getByText("3 chosen")).isVisible();
        press("Escape");
        assertThat(page.getByText("60 devices").first()).isVisible();
        page.getByLabel("Columns").click();
        page.getByRole(AriaRole.MENUITEMCHECKBOX, new Page.GetByRoleOptions().setName("people")).click();
        press("Escape");
        assertThat(page.getByLabel("Sort by people")).isHidden();
        page.reload();
        assertThat(list.getByRole(AriaRole.ROW).first()).containsText("QB-TRW");
        assertThat(page.getByLabel("Sort by people")).isHidden();
        list.focus();
        press("ArrowDown", "Enter");
        assertThat(page).hasURL(Pattern.compile("/fleet/[^/?]+$"));
    }

    @Test
    @Order(5)
    void theTableIsATreeGrid() {
        comeBack();
        page.navigate("/reach/siltscope?as=table");
        Locator grid = page.getByRole(AriaRole.TREEGRID);
        grid.focus();
        Locator labs = grid.getByRole(AriaRole.ROW, new Locator.GetByRoleOptions().setName(Pattern.compile("Laboratories")));
        labs.first().click();
        grid.focus();
        assertThat(labs.first()).hasAttribute("aria-expanded", "false");
        press("ArrowRight");
        assertThat(labs.first()).hasAttribute("aria-expanded", "true");
        assertThat(grid.getByRole(AriaRole.ROW, new Locator.GetByRoleOptions().setName(Pattern.compile("Coldwell")))).isVisible();
        press("ArrowRight");
        assertThat(region("Coldwell Laboratory")).isVisible();
        press("ArrowLeft", "ArrowLeft");
        assertThat(labs.first()).hasAttribute("aria-expanded", "false");
    }

    /** At 200 per cent on a screen of 1280, and on one of 1024. */
    @Test
    @Order(6)
    void nothingIsLostOnANarrowScreen() {
        comeBack();
        for (int[] size : new int[][] {{640, 400}, {1024, 700}}) {
            page.setViewportSize(size[0], size[1]);
            for (String address : List.of("/reach/siltscope", "/reach/siltscope?as=table", "/fleet", "/catalogue", "/mirrors", "/windows",
                    "/catalogue/siltscope?release=4.2.0", "/catalogue/kits/lab-bench")) {
                page.navigate(address);
                page.locator("h1").waitFor();
                assertThat((int) page.evaluate("() => document.documentElement.scrollWidth")).as("%s at %d", address, size[0])
                        .isLessThanOrEqualTo(size[0]);
            }
            page.navigate("/reach/siltscope");
            Locator require = page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(Pattern.compile("^Require")));
            require.scrollIntoViewIfNeeded();
            assertThat(require).isInViewport();
        }
    }

    /** A click must not miss what it is meant for because something above has just come. */
    @Test
    @Order(7)
    void nothingThatCanBePressedMovesWhileAPageComes() {
        comeBack();
        page.addInitScript("""
                window.moved = []
                new PerformanceObserver(shifts => {
                  for (const { node, previousRect: was, currentRect: is } of shifts.getEntries().flatMap(shift => shift.sources)) {
                    const pressed = 'a, button, input, [role=treeitem]'
                    const name = node?.closest?.(pressed) ?? node?.querySelector?.(pressed)
                    const gone = was.width * was.height * is.width * is.height === 0
                    if (name != null && node !== document.body && !gone && (was.x !== is.x || was.y !== is.y)) {
                      window.moved.push(`${name.getAttribute('aria-label') ?? name.textContent}: ${was.y} to ${is.y}`)
                    }
                  }
                }).observe({ type: 'layout-shift', buffered: true })""");
        browser.answersAfter(100);
        page.navigate("/fleet");
        String device = page.locator("[href^='/fleet/']").first().getAttribute("href");
        for (String address : List.of("/catalogue/siltscope?release=4.2.0", "/catalogue", "/reach/siltscope", device)) {
            page.navigate(address);
            page.locator("h1").first().waitFor();
            page.waitForLoadState(LoadState.NETWORKIDLE);
            assertThat((List<?>) page.evaluate("window.moved")).as(address).isEmpty();
        }
    }
}
