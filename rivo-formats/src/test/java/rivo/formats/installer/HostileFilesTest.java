package rivo.formats.installer;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import com.sun.management.ThreadMXBean;
import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.lang.management.ManagementFactory;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.Arrays;
import java.util.function.Consumer;
import java.util.stream.Stream;
import java.util.zip.GZIPOutputStream;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.apache.commons.compress.archivers.ar.ArArchiveEntry;
import org.apache.commons.compress.archivers.ar.ArArchiveOutputStream;
import org.apache.commons.compress.archivers.tar.TarArchiveEntry;
import org.apache.commons.compress.archivers.tar.TarArchiveOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;

/** Small files that were made to take a reader's memory or time. Each is read within the budget, or refused by name. */
class HostileFilesTest {

    /** All that a reader and its libraries allocate, given back or not. */
    private static final long MOST_ALLOCATED = ReadingBudget.MOST_MEMORY;

    @TempDir
    private Path folder;

    interface Writer {
        void write(OutputStream out) throws IOException;
    }

    private static byte[] bytes(Writer writer) throws IOException {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        writer.write(bytes);
        return bytes.toByteArray();
    }

    private static byte[] deb(Writer controlTar) throws IOException {
        byte[] packed = bytes(out -> {
            try (GZIPOutputStream gzip = new GZIPOutputStream(out)) {
                controlTar.write(gzip);
            }
        });
        return bytes(out -> {
            try (ArArchiveOutputStream ar = new ArArchiveOutputStream(out)) {
                put(ar, "debian-binary", "2.0\n".getBytes(StandardCharsets.US_ASCII));
                put(ar, "control.tar.gz", packed);
            }
        });
    }

    private static void put(ArArchiveOutputStream ar, String name, byte[] content) throws IOException {
        ar.putArchiveEntry(new ArArchiveEntry(name, content.length));
        ar.write(content);
        ar.closeArchiveEntry();
    }

    private static void tarEntry(TarArchiveOutputStream tar, String name, byte[] content) throws IOException {
        TarArchiveEntry entry = new TarArchiveEntry(name);
        entry.setSize(content.length);
        tar.putArchiveEntry(entry);
        tar.write(content);
        tar.closeArchiveEntry();
    }

    private static byte[] continuationLines() throws IOException {
        String control = "Package: x\nVersion: 1\nDescription: x\n" + " y\n".repeat(340_000);
        return deb(out -> {
            try (TarArchiveOutputStream tar = new TarArchiveOutputStream(out)) {
                tarEntry(tar, "./control", control.getBytes(StandardCharsets.US_ASCII));
            }
        });
    }

    /** Zeros, many times as many as the file has bytes, before the entry that is looked for. */
    private static byte[] unpacksToGibibytes() throws IOException {
        return deb(out -> {
            byte[] header = tarHeader("big", 1L << 32, '0');
            out.write(header);
            byte[] zeros = new byte[1 << 20];
            for (int i = 0; i < 600; i++) {
                out.write(zeros);
            }
        });
    }

    private static byte[] tarHeader(String name, long size, char type) {
        byte[] header = new byte[512];
        System.arraycopy(name.getBytes(StandardCharsets.US_ASCII), 0, header, 0, name.length());
        text(header, 100, "0000644\0");
        text(header, 124, size < 1L << 33 ? String.format("%011o", size) + "\0" : "77777777777\0");
        text(header, 136, "00000000000\0");
        text(header, 148, "        ");
        header[156] = (byte) type;
        text(header, 257, "ustar  \0");
        int sum = 0;
        for (byte b : header) {
            sum += b & 0xff;
        }
        text(header, 148, String.format("%06o\0 ", sum));
        return header;
    }

    private static void text(byte[] to, int at, String text) {
        System.arraycopy(text.getBytes(StandardCharsets.US_ASCII), 0, to, at, text.length());
    }

    private static byte[] longTarName(char type) throws IOException {
        return deb(out -> {
            out.write(tarHeader("././@LongLink", 1L << 30, type));
            byte[] letters = new byte[1 << 20];
            Arrays.fill(letters, (byte) 'a');
            for (int i = 0; i < 300; i++) {
                out.write(letters);
            }
        });
    }

    private static byte[] rpm(Consumer<DataOutputStream> header) throws IOException {
        return bytes(out -> {
            DataOutputStream data = new DataOutputStream(out);
            byte[] lead = new byte[96];
            lead[0] = (byte) 0xed;
            lead[1] = (byte) 0xab;
            lead[2] = (byte) 0xee;
            lead[3] = (byte) 0xdb;
            data.write(lead);
            ints(data, 0x8eade801, 0, 0, 0);
            header.accept(data);
        });
    }

    private static void ints(DataOutputStream out, int... values) {
        try {
            for (int value : values) {
                out.writeInt(value);
            }
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void zeros(DataOutputStream out, int n, int fill) {
        byte[] zeros = new byte[n];
        Arrays.fill(zeros, (byte) fill);
        try {
            out.write(zeros);
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private static byte[] rpmCounts() throws IOException {
        return rpm(out -> {
            ints(out, 0x8eade801, 0, 10_000, 15 << 20);
            for (int i = 0; i < 10_000; i++) {
                ints(out, 1049, 8, 0, 0x7fffffff);
            }
            zeros(out, 15 << 20, 0);
        });
    }

    private static byte[] rpmOverlaps() throws IOException {
        return rpm(out -> {
            ints(out, 0x8eade801, 0, 8, 15 << 20);
            for (int tag : new int[] {1000, 1001, 1004, 1011, 1022, 1048, 1049, 1050}) {
                ints(out, tag, 6, 0, 1);
            }
            zeros(out, 15 << 20, 'a');
        });
    }

    private static byte[] rpmLengths() throws IOException {
        return rpm(out -> ints(out, 0x8eade801, 0, 1, 0x7fffffff));
    }

    private static byte[] zip(int entries, String name) throws IOException {
        return bytes(out -> {
            try (ZipOutputStream zip = new ZipOutputStream(out)) {
                for (int i = 0; i < entries; i++) {
                    zip.putNextEntry(new ZipEntry(name + i));
                    zip.closeEntry();
                }
            }
        });
    }

    /** A manifest of many small elements. */
    private static byte[] manifest() throws IOException {
        return bytes(out -> {
            try (ZipOutputStream zip = new ZipOutputStream(out)) {
                zip.putNextEntry(new ZipEntry("AppxManifest.xml"));
                zip.write(("<Package>" + "<a/>".repeat(63_000) + "</Package>").getBytes(StandardCharsets.US_ASCII));
                zip.closeEntry();
            }
        });
    }

    /** A compound file of 40 MiB that is nearly all directory. */
    private static byte[] compoundDirectory() {
        int sectors = 80_000;
        ByteBuffer file = ByteBuffer.allocate((sectors + 1) * 512).order(ByteOrder.LITTLE_ENDIAN);
        file.put(new byte[] {(byte) 0xD0, (byte) 0xCF, 0x11, (byte) 0xE0, (byte) 0xA1, (byte) 0xB1, 0x1A, (byte) 0xE1});
        int tables = sectors / 128 + 1;
        file.putShort(24, (short) 0x3e).putShort(26, (short) 3).putShort(28, (short) 0xfffe).putShort(30, (short) 9).putShort(32, (short) 6);
        int lists = (tables - 109 + 126) / 127;
        file.putInt(44, tables).putInt(48, tables + lists).putInt(56, 4096).putInt(60, -2).putInt(64, 0).putInt(68, tables).putInt(72, lists);
        for (int i = 0; i < 109; i++) {
            file.putInt(76 + 4 * i, i);
        }
        for (int i = 109; i < tables; i++) {
            file.putInt(512 * (tables + (i - 109) / 127 + 1) + 4 * ((i - 109) % 127), i);
        }
        for (int i = 0; i < lists; i++) {
            file.putInt(512 * (tables + i + 1) + 4 * 127, i + 1 < lists ? tables + i + 1 : -2);
        }
        for (int sector = 0; sector < sectors; sector++) {
            file.putInt(512 + 4 * sector, sector < tables ? -3 : sector < tables + lists ? -4 : sector + 1 < sectors ? sector + 1 : -2);
        }
        for (int entry = 512 * (tables + lists + 1); entry < file.limit(); entry += 128) {
            file.putShort(entry, (short) 'a').putShort(entry + 64, (short) 4).put(entry + 66, (byte) 2);
        }
        return file.array();
    }

    static Stream<Arguments> hostile() throws IOException {
        return Stream.of(Arguments.of("a .deb of continuation lines", continuationLines()),
                Arguments.of("a .deb that unpacks to gibibytes", unpacksToGibibytes()),
                Arguments.of("a tar header that claims a name of 1 GB", longTarName('L')),
                Arguments.of("a tar header that claims a link of 1 GB", longTarName('K')),
                Arguments.of("a tar header that claims 1 GB of its own", longTarName('x')),
                Arguments.of("an .rpm that counts to two milliards", rpmCounts()),
                Arguments.of("an .rpm whose texts overlap", rpmOverlaps()),
                Arguments.of("an .rpm of impossible length", rpmLengths()),
                Arguments.of("a ZIP of 150,000 names", zip(150_000, "n")),
                Arguments.of("a ZIP of 90,000 names", zip(90_000, "n")),
                Arguments.of("a ZIP of long names", zip(1_000, "n".repeat(60_000))),
                Arguments.of("a ZIP of names that fit", zip(200, "n".repeat(50_000))),
                Arguments.of("a manifest of many elements", manifest()),
                Arguments.of("a compound file that is all directory", compoundDirectory()));
    }

    @ParameterizedTest(name = "{0}")
    @MethodSource("hostile")
    void takesNeitherTheMemoryNorTheTime(String what, byte[] file) throws Exception {
        Path path = folder.resolve("file");
        Files.write(path, file);
        Cost cost = Cost.of(() -> {
            try {
                InstallerReader.read(path, "given.bin");
            } catch (UnreadableInstallerException e) {
                assertThat(e.getMessage()).contains(" is ").doesNotContain("Exception", "Error");
            }
        });
        assertThat(cost.allocated()).as("bytes allocated for " + what).isLessThan(MOST_ALLOCATED);
        assertThat(cost.time()).as("processor time for " + what).isLessThan(ReadingBudget.MOST_TIME.plusSeconds(1));
    }

    @Test
    void whatExceedsTheBudgetIsRefusedByName() throws IOException {
        for (byte[] file : new byte[][] {unpacksToGibibytes(), zip(150_000, "n"), rpmOverlaps(), compoundDirectory()}) {
            Path path = folder.resolve("file");
            Files.write(path, file);
            assertThatThrownBy(() -> InstallerReader.read(path, "setup.bin"))
                    .isInstanceOfSatisfying(UnreadableInstallerException.class, e -> assertThat(e.code()).isEqualTo("hostile-file"))
                    .hasMessageContaining("not taken");
        }
    }

    @Test
    void manyContinuationLinesAreReadAllTheSame() throws Exception {
        Path path = folder.resolve("file");
        Files.write(path, continuationLines());
        assertThat(InstallerReader.read(path, "x.deb").name()).isEqualTo("X");
    }

    /** What something took of the thread that ran it. */
    record Cost(long allocated, Duration time) {

        interface Work {
            void run() throws Exception;
        }

        static Cost of(Work work) throws Exception {
            ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
            long id = Thread.currentThread().getId();
            long before = threads.getThreadAllocatedBytes(id);
            long begun = threads.getCurrentThreadCpuTime();
            work.run();
            return new Cost(threads.getThreadAllocatedBytes(id) - before,
                    Duration.ofNanos(threads.getCurrentThreadCpuTime() - begun));
        }
    }
}
