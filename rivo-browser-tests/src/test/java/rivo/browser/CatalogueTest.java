package rivo.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;
import static org.assertj.core.api.Assertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Path;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Order;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** From a file that is dropped in to a device that has it, with nothing typed but a reason. */
class CatalogueTest extends BrowserTest {

    private static final Path SAMPLES = Path.of("..", "samples");

    @BeforeEach
    void enter() {
        comeBack();
    }

    private void drop(String file) {
        page.navigate("/catalogue");
        page.setInputFiles("input[type=file]", SAMPLES.resolve(file));
    }

    @ParameterizedTest
    @Order(1)
    @CsvSource({"siltscope-lab-4.4.0-x64.msi, siltscope, 4.4.0, ",
        "tarnlog-viewer-3.4.0-setup.exe, tarnlog, 3.4.0, ",
        "kingfisher-meter-reader-6.1.0-arm64.msix, kingfisher, 6.1.0, ",
        "tidewatch_2.1.0-1_amd64.deb, tidewatch, 2.1.0, Outreach kiosks"})
    void aFileThatIsDroppedInIsOnADeviceSoonAfter(String file, String title, String version, @Nullable String ou) {
        drop(file);
        button("Add to the catalogue").click();
        assertThat(page).hasURL(Pattern.compile("/catalogue/" + title + "\\?release=" + version));
        assertThat(region("Before it is assigned")).containsText("Can be removed");
        button("Offer " + version + "…").click();
        assertThat(page.getByText("Rehearsed on 60 devices")).isVisible();
        page.getByLabel("Why?").fill("Tried on the bench");
        button("Offer").click();
        assertThat(button("Withdraw " + version + "…")).isVisible();
        if (ou != null) {
            require(title, ou);
        }
        assertThat(devicesWith(title, version)).isPositive();
        assertThat(browser.complaints()).isEmpty();
    }

    private void require(String title, String ou) {
        page.navigate("/reach/" + title);
        page.getByRole(AriaRole.TREEITEM, new Page.GetByRoleOptions().setName(Pattern.compile("^" + ou))).click();
        page.keyboard().press("r");
        button("Publish…").click();
        page.getByLabel("Why is this changed?").fill("Tried on the bench");
        button("Publish").click();
        assertThat(page.getByText("is published.").first()).isVisible();
    }

    /** Waits until a device has reported it, at most three quarters of a minute. */
    private int devicesWith(String title, String version) {
        return ((Number) page.evaluate("""
                async ([title, version]) => {
                  for (let i = 0; i < 90; i++) {
                    const page = await (await fetch(`/api/titles/${title}`)).json()
                    const found = page.present.find(one => one.version === version)
                    if (found !== undefined) return found.devices
                    await new Promise(done => setTimeout(done, 500))
                  }
                  return 0
                }""", java.util.List.of(title, version))).intValue();
    }

    @Test
    @Order(2)
    void aFileThatIsNotWhatItSaysIsPointedOut(@TempDir Path folder) throws IOException {
        Path disguised = java.nio.file.Files.copy(SAMPLES.resolve("tidewatch_2.1.0-1_amd64.deb"),
                folder.resolve("harmless.msi"));
        page.navigate("/catalogue");
        page.setInputFiles("input[type=file]", disguised);
        assertThat(page.getByText("The name says a Windows Installer database, the content is a Debian package."))
                .isVisible();
        assertThat(page.getByText("The very same file is in the catalogue already")).isVisible();
        button("Cancel").click();
        Path empty = java.nio.file.Files.createFile(folder.resolve("empty.exe"));
        page.setInputFiles("input[type=file]", empty);
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("empty.exe is empty");
    }

    @Test
    @Order(0)
    void aFileThatWasChangedAfterItWasSignedIsOfferedOnlyOnceSomebodySaysWhy(@TempDir Path folder) throws IOException {
        byte[] bytes = java.nio.file.Files.readAllBytes(SAMPLES.resolve("tarnlog-viewer-3.4.0-setup.exe"));
        bytes[bytes.length / 2] ^= 1;
        page.navigate("/catalogue");
        page.setInputFiles("input[type=file]", java.nio.file.Files.write(folder.resolve("tarnlog-viewer-setup.exe"), bytes));
        Locator window = page.getByRole(AriaRole.DIALOG);
        assertThat(window).containsText("Changed after it was signed");
        window.getByLabel("Version").fill("3.4.9");
        button("Add to the catalogue").click();
        assertThat(page).hasURL(Pattern.compile("release=3\\.4\\.9"));
        button("Offer 3.4.9…").click();
        window.getByLabel("Why").fill("For the loggers");
        button("Offer").click();
        assertThat(window.getByRole(AriaRole.ALERT)).containsText("was changed after it was signed, so 3.4.9 is not offered");
        button("Cancel").click();
        region("Before it is assigned").getByText("Use it all the same, and say why").click();
        button("Use it").click();
        assertThat(window).containsText("Say why: whoever asks later reads that.");
        window.getByLabel("Why it shall be used").fill("Its maker has confirmed the SHA-256");
        assertThat(browser.faults("light")).isEmpty();
        button("Use it").click();
        assertThat(region("Before it is assigned")).containsText("Changed after it was signed, and used all the same");

        page.navigate("/trusted-roots");
        Locator root = region("Fernhill Signing Authority");
        assertThat(root).containsText("certificate, until");
        assertThat(browser.faults("light")).isEmpty();
        root.getByRole(AriaRole.BUTTON).click();
        root.getByText("Do not trust it").click();
        assertThat(page.getByText("No root is trusted yet")).isVisible();
        page.keyboard().press("n");
        window.getByLabel("Or its text").fill("hello");
        button("Trust it").click();
        assertThat(window.getByRole(AriaRole.ALERT)).containsText("This is no certificate");
        page.setInputFiles("input[type=file]", SAMPLES.resolve("fernhill-signing-authority.pem"));
        button("Trust it").click();
        assertThat(root).isVisible();
        assertThat(browser.complaints()).allMatch(one -> one.contains("409") || one.contains("422"));
    }

    @Test
    @Order(3)
    void theStepsAreEditedMovedAndTriedOnADevice() {
        page.navigate("/catalogue/siltscope?release=4.2.0");
        Locator steps = region("Steps");
        assertThat(steps.getByRole(AriaRole.LISTITEM)).hasCount(5);
        page.keyboard().press("n");
        page.getByLabel("Description").fill("Say it is there");
        page.getByLabel("Command", new Page.GetByLabelOptions().setExact(true)).fill("notify --title \"{fact:x.asset}\"");
        button("Save").click();
        assertThat(steps.getByRole(AriaRole.LISTITEM)).hasCount(6);
        button("Move step 5 up").click();
        assertThat(steps.getByRole(AriaRole.LISTITEM).nth(3)).containsText("Say it is there");
        pick("Try on a device", "QB-LAB-003");
        assertThat(steps.getByRole(AriaRole.STATUS)).containsText("tried on QB-LAB-003");
        assertThat(steps).containsText("needs the fact x.asset, which the device has not reported");
        button("Edit step 4").click();
        button("Delete this step").click();
        assertThat(steps.getByRole(AriaRole.LISTITEM)).hasCount(5);
    }

    @Test
    @Order(4)
    void theSecondOfTwoWhoEditOneTitleIsToldAndLosesNothing() {
        page.navigate("/catalogue/dosecalc");
        assertThat(page.getByRole(AriaRole.HEADING, new Page.GetByRoleOptions().setName("Dosecalc"))).isVisible();
        page.keyboard().press("e");
        page.getByLabel("Owner").fill("Works IT, north");
        page.evaluate("""
                async () => {
                  const page = await (await fetch('/api/titles/dosecalc')).json()
                  page.record.about.category = 'Treatment'
                  const token = decodeURIComponent(document.cookie.split('XSRF-TOKEN=')[1].split(';')[0])
                  await fetch('/api/titles/dosecalc', {method: 'PUT', body: JSON.stringify(page),
                    headers: {'Content-Type': 'application/json', 'X-XSRF-TOKEN': token}})
                }""");
        // What somebody else saved comes meanwhile, below the window, and is rehearsed anew.
        assertThat(page.getByText("· Treatment")).isVisible();
        assertThat(button("Save")).not().hasAttribute("aria-busy", "true");
        button("Save").click();
        assertThat(page.getByRole(AriaRole.ALERT)).containsText("was changed by " + demo.account());
        assertThat(page.getByLabel("Owner")).hasValue("Works IT, north");
        button("Save").click();
        assertThat(page.getByText("owner Works IT, north · Treatment")).isVisible();
    }

    @Test
    @Order(5)
    void aRelationThatWouldTakeSomethingOffIsRehearsedAndAskedAbout() {
        page.navigate("/catalogue/siltscope?release=4.2.0");
        region("Relations").getByRole(AriaRole.BUTTON).first().click();
        Locator third = page.getByLabel("Relation 3", new Page.GetByLabelOptions().setExact(true));
        third.selectOption("off-first");
        pick("Title of relation 3", "fernote");
        assertThat(page.getByText("lose Fernote Reader, which is replaced")).isVisible();
        assertThat(button("Save")).isDisabled();
        button("Cancel").click();
        assertThat(third).isHidden();
    }

    @Test
    @Order(6)
    void theCatalogueIsFreeOfSeriousFaultsInBothThemes() {
        page.navigate("/catalogue");
        for (String theme : new String[] {"light", "dark"}) {
            page.evaluate("theme => localStorage.setItem('rivo.theme', theme)", theme);
            page.navigate("/catalogue");
            assertThat(page.getByText("Siltscope Lab").first()).isVisible();
            assertThat(browser.faults(theme)).as("the catalogue, %s", theme).isEmpty();
            page.navigate("/catalogue/siltscope?release=4.2.0&device=QB-LAB-003");
            assertThat(page.getByText("tried on")).isVisible();
            assertThat(browser.faults(theme)).as("a title, %s", theme).isEmpty();
            page.keyboard().press("n");
            assertThat(page.getByText("A new step")).isVisible();
            assertThat(browser.faults(theme)).as("a step, %s", theme).isEmpty();
        }
    }
}
