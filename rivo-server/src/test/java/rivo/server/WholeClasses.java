package rivo.server;

import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.TestFactory;
import org.junit.platform.engine.CancellationToken;
import org.junit.platform.engine.TestExecutionResult;
import org.junit.platform.engine.discovery.ClassNameFilter;
import org.junit.platform.engine.discovery.DiscoverySelectors;
import org.junit.platform.engine.support.descriptor.ClassSource;
import org.junit.platform.launcher.Launcher;
import org.junit.platform.launcher.TestExecutionListener;
import org.junit.platform.launcher.TestIdentifier;
import org.junit.platform.launcher.core.LauncherDiscoveryRequestBuilder;
import org.junit.platform.launcher.core.LauncherExecutionRequestBuilder;
import org.junit.platform.launcher.core.LauncherFactory;

/**
 * One test for each test class of the packages in {@code rivo.whole-classes}, which ends with the first failure; for
 * {@code ./rivo mutants} alone, which else would start a class's server once for each of its tests.
 */
class WholeClasses {

    private static final Launcher LAUNCHER = LauncherFactory.create();

    @TestFactory
    Stream<DynamicTest> each() {
        LauncherDiscoveryRequestBuilder all = LauncherDiscoveryRequestBuilder.request().filters(ClassNameFilter.includeClassNamePatterns(".*Test"));
        for (String name : System.getProperty("rivo.whole-classes", "").split(",")) {
            all.selectors(DiscoverySelectors.selectPackage(name));
        }
        List<String> classes = LAUNCHER.discover(all.build()).getRoots().stream().flatMap(root -> LAUNCHER.discover(all.build())
                .getDescendants(root).stream()).filter(found -> found.getSource().filter(ClassSource.class::isInstance).isPresent())
                .map(found -> ((ClassSource) found.getSource().orElseThrow()).getClassName()).distinct().sorted().toList();
        return classes.stream().map(name -> DynamicTest.dynamicTest(name, () -> run(name)));
    }

    private static void run(String name) throws Throwable {
        CancellationToken enough = CancellationToken.create();
        FirstFailure failure = new FirstFailure(enough);
        LAUNCHER.execute(LauncherExecutionRequestBuilder.request(LauncherDiscoveryRequestBuilder.request()
                .selectors(DiscoverySelectors.selectClass(name)).build()).cancellationToken(enough).listeners(failure).build());
        if (failure.thrown != null) {
            throw failure.thrown;
        }
    }

    private static final class FirstFailure implements TestExecutionListener {
        private final CancellationToken enough;
        private Throwable thrown;

        FirstFailure(CancellationToken enough) {
            this.enough = enough;
        }

        @Override
        public void executionFinished(TestIdentifier test, TestExecutionResult result) {
            if (result.getStatus() == TestExecutionResult.Status.FAILED && thrown == null) {
                thrown = result.getThrowable().orElseGet(() -> new AssertionError(test.getDisplayName()));
                enough.cancel();
            }
        }
    }
}
