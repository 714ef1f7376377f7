package rivo.formats.installer;

import java.util.List;
import org.jspecify.annotations.Nullable;

/**
 * What an installer file tells of itself. What is null it does not tell.
 *
 * @param name of the software
 * @param version as it was written, but for a Debian or RPM package, of which it is the upstream version
 * @param architecture x64, x86 or arm64; null when it says nothing or that any will do
 * @param code under which the system knows it once it is there: the product code of a Windows Installer database, the
 *     name of a package
 * @param family what all releases of it share: the upgrade code of a Windows Installer database
 * @param minimumSystem the lowest version of the system that it takes
 * @param kind of a Windows set-up program
 * @param perMachine whether it installs for the whole device
 * @param signer the organisation whose certificate is in the file; that it is valid is not checked
 * @param needs what it says has to be there first
 * @param findings what somebody should know before using it
 */
public record InstallerFile(InstallerFormat format, @Nullable String name, @Nullable String version,
        @Nullable String maker, @Nullable String description, @Nullable String architecture, @Nullable String code,
        @Nullable String family, @Nullable String minimumSystem, InstallerKind kind, boolean perMachine,
        @Nullable String signer, List<Needed> needs, List<Finding> findings) {

    public InstallerFile {
        needs = List.copyOf(needs);
        findings = List.copyOf(findings);
    }

    /** Something that has to be there first, by the name its own packaging system knows. */
    public record Needed(String name, @Nullable String minimum) {
    }

    /** @param sentence with the remedy */
    public record Finding(String code, String sentence) {
    }

    static InstallerFile nothingOf(InstallerFormat format) {
        return new InstallerFile(format, null, null, null, null, null, null, null, null, InstallerKind.UNKNOWN, true,
                null, List.of(), List.of());
    }

    InstallerFile signedBy(@Nullable String organisation) {
        return new InstallerFile(format, name, version, maker, description, architecture, code, family, minimumSystem,
                kind, perMachine, organisation, needs, findings);
    }

    InstallerFile with(List<Finding> found) {
        return new InstallerFile(format, name, version, maker, description, architecture, code, family, minimumSystem,
                kind, perMachine, signer, needs, found);
    }
}
