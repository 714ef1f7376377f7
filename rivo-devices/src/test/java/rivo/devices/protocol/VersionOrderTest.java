package rivo.devices.protocol;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.BufferedWriter;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Random versions are held against what dpkg and rpm themselves say. */
class VersionOrderTest {

    private static final long SEED = 20261129;
    private static final int PAIRS = 1500;

    @TempDir
    private Path folder;

    @ParameterizedTest
    @CsvSource({"1.0~rc1, 1.0, -1", "1.0, 1.0-1, -1", "1:1.0, 2.0, 1", "2.1.0-2+deb12u1, 2.1.0-2, 1", "1.0-0, 1.0, 0", "1.10, 1.9, 1", "1.0a, 1.0+, -1"})
    void dpkgsOrder(String one, String other, int order) {
        assertThat(Integer.signum(VersionOrder.DEBIAN.compare(one, other))).isEqualTo(order);
    }

    @ParameterizedTest
    @CsvSource({"1.0~rc1-1, 1.0-1, -1", "1.0^git1, 1.0, 1", "1.0^git1, 1.0.1, -1", "1:1.0, 2.0, 1", "1.0, 1.0-1, -1", "1.0a, 1.0.1, -1", "1..0, 1.0, 0", "1.05, 1.5, 0"})
    void rpmsOrder(String one, String other, int order) {
        assertThat(Integer.signum(VersionOrder.RPM.compare(one, other))).isEqualTo(order);
    }

    @Test
    void theVersionOfTheSoftwareIsWithoutWhatPackagersAdd() {
        assertThat(List.of(VersionOrder.upstream("1:2.1.0-2+deb12u1"), VersionOrder.upstream("2.1-rc-3"), VersionOrder.upstream("7"))).containsExactly("2.1.0", "2.1-rc", "7");
    }

    private static String version(Random random, String marks) {
        StringBuilder text = new StringBuilder(random.nextInt(8) == 0 ? random.nextInt(3) + ":" : "").append(random.nextInt(3));
        for (int i = random.nextInt(6); i > 0; i--) {
            text.append(switch (random.nextInt(4)) {
                case 0 -> String.valueOf(random.nextInt(12));
                case 1 -> "0" + random.nextInt(3);
                case 2 -> String.valueOf((char) ('a' + random.nextInt(3)));
                default -> String.valueOf(marks.charAt(random.nextInt(marks.length())));
            });
        }
        return text.append(random.nextBoolean() ? "-" + random.nextInt(3) + (random.nextBoolean() ? marks.charAt(random.nextInt(marks.length())) + "b" : "") : "").toString();
    }

    private static List<String[]> pairs(String marks) {
        Random random = new Random(SEED);
        List<String[]> pairs = new ArrayList<>();
        for (int i = 0; i < PAIRS; i++) {
            String one = version(random, marks);
            pairs.add(new String[] {one, random.nextInt(6) == 0 ? one + "~" : version(random, marks)});
        }
        return pairs;
    }

    /** What a program prints, one line for each pair that it is given. */
    private static List<String> said(List<String> command, List<String[]> pairs) throws IOException {
        Process process = new ProcessBuilder(command).redirectError(ProcessBuilder.Redirect.DISCARD).start();
        try (BufferedWriter in = process.outputWriter(StandardCharsets.US_ASCII)) {
            for (String[] pair : pairs) {
                in.write(pair[0] + " " + pair[1] + "\n");
            }
        }
        try (BufferedReader out = process.inputReader(StandardCharsets.US_ASCII)) {
            return out.lines().flatMap(line -> Stream.of(line.strip().split(" "))).toList();
        }
    }

    private void holdAgainst(VersionOrder order, List<String[]> pairs, List<String> said) {
        assertThat(said).hasSize(pairs.size());
        for (int i = 0; i < said.size(); i++) {
            String[] pair = pairs.get(i);
            assertThat(Integer.signum(order.compare(pair[0], pair[1]))).as("%s and %s, seed %d", pair[0], pair[1], SEED).isEqualTo(Integer.parseInt(said.get(i).strip()));
        }
    }

    @Test
    void dpkgSaysTheSame() throws Exception {
        List<String[]> pairs = pairs(".+~");
        holdAgainst(VersionOrder.DEBIAN, pairs, said(List.of("sh", "-c", "while read a b; do if dpkg --compare-versions \"$a\" lt \"$b\"; then echo -1; "
                + "elif dpkg --compare-versions \"$a\" eq \"$b\"; then echo 0; else echo 1; fi; done"), pairs));
    }

    @Test
    void rpmSaysTheSame() throws Exception {
        // A release has no hyphen, so that what stands before the last one is a version.
        List<String[]> pairs = pairs("._~^");
        Path script = folder.resolve("order.lua");
        Files.writeString(script, "for line in io.lines() do local a, b = line:match('(%S+) (%S+)'); print(rpm.vercmp(a, b) .. ' ') end");
        holdAgainst(VersionOrder.RPM, pairs, said(List.of("rpm", "--eval", "%{lua: " + Files.readString(script) + "}"), pairs));
    }
}
