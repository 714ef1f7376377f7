package rivo.server;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.Architectures.layeredArchitecture;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.tngtech.archunit.base.DescribedPredicate;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaMethod;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.core.importer.ImportOption;
import com.tngtech.archunit.lang.ArchCondition;
import com.tngtech.archunit.lang.ArchRule;
import com.tngtech.archunit.lang.ConditionEvents;
import com.tngtech.archunit.lang.SimpleConditionEvent;
import com.tngtech.archunit.lang.syntax.ArchRuleDefinition;
import com.tngtech.archunit.library.Architectures.LayeredArchitecture;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestMapping;

/** The borders between the modules, and between the phases of the core. */
class BordersTest {

    private static final JavaClasses REAL = new ClassFileImporter().withImportOption(new ImportOption.DoNotIncludeTests())
            .importPackages("rivo");
    private static final JavaClasses WITH_PLANTED = new ClassFileImporter().importPackages("rivo");

    private static final LayeredArchitecture MODULES = layeredArchitecture().consideringOnlyDependenciesInLayers()
            .layer("core").definedBy("rivo.core..").layer("formats").definedBy("rivo.formats..")
            .layer("directory").definedBy("rivo.directory..").layer("devices").definedBy("rivo.devices..")
            .layer("server").definedBy("rivo.server..")
            .whereLayer("server").mayNotBeAccessedByAnyLayer()
            .whereLayer("formats").mayOnlyBeAccessedByLayers("server")
            .whereLayer("directory").mayOnlyBeAccessedByLayers("server")
            .whereLayer("devices").mayOnlyBeAccessedByLayers("server");

    /** The phases of the core, each importing earlier ones only. */
    private static final List<String> PHASES = List.of("estate", "rule", "audience", "resolve", "explain", "rehearse", "plan", "state");
    private static final List<String> CATALOGUE = List.of("content", "trust", "title", "choice", "licence", "kit", "proposal");

    private static final ArchRule PURE_CORE = noClasses().that().resideInAPackage("rivo.core..").should()
            .dependOnClassesThat().resideOutsideOfPackages("rivo.core..", "java.lang..", "java.util..", "java.math..",
                    "java.time..", "java.nio.charset..", "java.security..", "org.jspecify..");
    private static final ArchRule NO_CLOCK = noClasses().that().resideInAPackage("rivo.core..").should()
            .callMethod(System.class, "currentTimeMillis").orShould().callMethod(System.class, "nanoTime").orShould()
            .callMethod(java.time.Instant.class, "now").orShould().dependOnClassesThat()
            .haveFullyQualifiedName("java.time.Clock");
    private static final ArchRule LDAP_STAYS_IN_THE_DIRECTORY = noClasses().that()
            .resideOutsideOfPackage("rivo.directory..").should().dependOnClassesThat()
            .resideInAPackage("com.unboundid..");

    @Test
    void eachModuleImportsOnlyThoseBeforeIt() {
        MODULES.check(REAL);
    }

    @Test
    void thisTestSeesAPlantedViolation() {
        assertThatThrownBy(() -> MODULES.check(WITH_PLANTED)).isInstanceOf(AssertionError.class)
                .hasMessageContaining("rivo.core.planted.Offender");
    }

    @Test
    void theCoreIsPureComputation() {
        PURE_CORE.check(REAL);
        NO_CLOCK.check(REAL);
    }

    @Test
    void thePhasesOfTheCoreImportEarlierOnesOnly() {
        importsEarlierOnesOnly("rivo.core.", PHASES);
    }

    @Test
    void thePartsOfTheCatalogueImportEarlierOnesOnly() {
        importsEarlierOnesOnly("rivo.server.catalogue.", CATALOGUE);
        noClasses().that().resideInAPackage("rivo.server.catalogue.*").should().dependOnClassesThat()
                .resideInAPackage("rivo.server.catalogue").check(REAL);
    }

    private static void importsEarlierOnesOnly(String parent, List<String> parts) {
        for (int i = 0; i < parts.size(); i++) {
            for (String later : parts.subList(i + 1, parts.size())) {
                noClasses().that().resideInAPackage(parent + parts.get(i) + "..").should()
                        .dependOnClassesThat().resideInAPackage(parent + later + "..").check(REAL);
            }
        }
        assertThat(REAL.stream().map(c -> c.getPackageName()).filter(p -> p.startsWith(parent)).distinct()
                .map(p -> p.substring(parent.length()).split("\\.")[0])).hasSameElementsAs(parts);
    }

    /** A set of bare positions does not say whether they are devices or people on devices. */
    private static final ArchRule SETS_LEAVE_THE_CORE_TYPED = noClasses().that().resideOutsideOfPackages("rivo.core..", "rivo.bench..").should()
            .dependOnClassesThat().haveFullyQualifiedName("rivo.core.audience.Positions");

    @Test
    void setsOfDevicesAndOfUnitsLeaveTheCoreTyped() {
        SETS_LEAVE_THE_CORE_TYPED.check(REAL);
    }

    @Test
    void ldapStaysInTheDirectory() {
        LDAP_STAYS_IN_THE_DIRECTORY.check(REAL);
    }

    /** Whoever speaks the device protocol is proven where the route has been decided: by the handler's own first parameter. */
    private static final ArchRule DEVICE_HANDLERS_ASK_WHO_CALLS = ArchRuleDefinition.methods()
            .that(DescribedPredicate.describe("handle requests of the device protocol", (JavaMethod method) -> method.isMetaAnnotatedWith(RequestMapping.class)
                    && method.getOwner().tryGetAnnotationOfType(RequestMapping.class)
                            .filter(m -> Arrays.stream(m.value()).anyMatch(path -> path.startsWith("/device"))).isPresent()))
            .should(new ArchCondition<>("take the caller first") {
                @Override
                public void check(JavaMethod method, ConditionEvents events) {
                    boolean asks = !method.getRawParameterTypes().isEmpty()
                            && method.getRawParameterTypes().get(0).isAssignableTo("rivo.server.fleet.Caller");
                    events.add(new SimpleConditionEvent(method, asks, method.getFullName()));
                }
            });

    @Test
    void noHandlerOfTheDeviceProtocolIsCalledWithoutACaller() {
        DEVICE_HANDLERS_ASK_WHO_CALLS.check(REAL);
        assertThatThrownBy(() -> DEVICE_HANDLERS_ASK_WHO_CALLS.check(WITH_PLANTED)).isInstanceOf(AssertionError.class)
                .hasMessageContaining("PlantedDeviceApi");
    }

    @Test
    void noOtherHandlerHasAnAddressOfTheDeviceProtocol() {
        ArchRuleDefinition.noMethods().that().areMetaAnnotatedWith(RequestMapping.class).should(new ArchCondition<>("be below /device") {
            @Override
            public void check(JavaMethod method, ConditionEvents events) {
                boolean below = Stream.of(GetMapping.class, PostMapping.class, PutMapping.class, DeleteMapping.class)
                        .flatMap(type -> method.tryGetAnnotationOfType(type.getName()).stream())
                        .flatMap(a -> a.tryGetExplicitlyDeclaredProperty("value").stream()).flatMap(v -> Arrays.stream((Object[]) v))
                        .anyMatch(path -> String.valueOf(path).toLowerCase(Locale.ROOT).startsWith("/device"));
                events.add(new SimpleConditionEvent(method, below, method.getFullName()));
            }
        }).check(REAL);
    }
}
