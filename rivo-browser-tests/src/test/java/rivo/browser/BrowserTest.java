package rivo.browser;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.io.IOException;
import java.nio.file.Path;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.MethodOrderer;
import org.junit.jupiter.api.TestMethodOrder;
import org.junit.jupiter.api.io.TempDir;

/** A demo of its own for each class, and a browser of its own for each test. */
@TestMethodOrder(MethodOrderer.OrderAnnotation.class)
abstract class BrowserTest {

    @TempDir
    static Path data;
    static Demo demo;
    Browser browser;
    Page page;

    @BeforeAll
    static void start() throws IOException {
        demo = Demo.start(data.resolve("demo"));
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

    void signIn() {
        browser.signIn(demo.account(), demo.password());
    }

    Locator button(String name) {
        return page.getByRole(AriaRole.BUTTON, new Page.GetByRoleOptions().setName(name).setExact(true));
    }

    Locator region(String name) {
        return page.getByRole(AriaRole.REGION, new Page.GetByRoleOptions().setName(name));
    }
}
