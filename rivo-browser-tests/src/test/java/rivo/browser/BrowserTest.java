package rivo.browser;

import static com.microsoft.playwright.assertions.PlaywrightAssertions.assertThat;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import com.microsoft.playwright.options.Cookie;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.extension.AfterTestExecutionCallback;
import org.junit.jupiter.api.extension.RegisterExtension;
import org.junit.jupiter.api.io.TempDir;

/** A demo of its own for each class, and a browser of its own for each test. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
abstract class BrowserTest {

    @TempDir
    static Path data;
    static Demo demo;
    /** By which whoever has signed in once is known again. */
    private static List<Cookie> session = List.of();
    Browser browser;
    Page page;

    @BeforeAll
    static void start() throws IOException {
        demo = Demo.start(data.resolve("demo"));
        session = List.of();
    }

    @AfterAll
    static void stop() {
        demo.close();
    }

    @BeforeEach
    void open() {
        browser = new Browser(demo.url());
        page = browser.page();
    }

    @AfterEach
    void shut() {
        browser.close();
    }

    /** Said where a test fails, since whoever reads its report was not there. */
    @RegisterExtension
    final AfterTestExecutionCallback saysWhatStoodThere = test -> test.getExecutionException()
            .ifPresent(failure -> System.out.println(test.getDisplayName() + " failed at " + page.url() + "\n" + page.locator("body").ariaSnapshot()
                    + "\ncomplaints: " + browser.complaints()));

    void signIn() {
        browser.signIn(demo.account(), demo.password());
    }

    /** As somebody who has signed in before: no page is open yet. */
    void comeBack() {
        if (session.isEmpty()) {
            signIn();
            session = browser.cookies();
        } else {
            browser.know(session);
        }
    }

    Locator button(String name) {
        return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    /** Chooses by a few letters the only one that they match. */
    void pick(String label, String letters) {
        page.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName(label)).fill(letters);
        Locator option = page.locator("[role=option]:visible");
        assertThat(option).hasCount(1);
        option.click();
    }

    Locator region(String name) {
        return page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName(name));
    }
}
