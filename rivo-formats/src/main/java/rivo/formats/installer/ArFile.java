package rivo.formats.installer;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.RandomAccessFile;
import java.io.SequenceInputStream;
import java.nio.channels.Channels;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;

/** Where the files in an ar archive lie (deb(5), ar(5)), so that one behind a large one is found without reading that. Pure functions. */
final class ArFile {

    private static final int MARK = 8;
    private static final int HEAD = 60;
    private static final int SIZE_AT = 48;
    private static final int SIZE_LENGTH = 10;
    private static final int NAME_LENGTH = 16;
    private static final int MOST = 100;

    record Member(String name, long at, long size) {
    }

    private ArFile() {
    }

    static List<Member> members(Path file, ReadingBudget budget) throws IOException {
        List<Member> members = new ArrayList<>();
        try (RandomAccessFile in = new RandomAccessFile(file.toFile(), "r")) {
            byte[] head = new byte[HEAD];
            for (long at = MARK; at <= in.length() - HEAD && members.size() < MOST; ) {
                budget.hold(200);
                in.seek(at);
                in.readFully(head);
                String size = new String(head, SIZE_AT, SIZE_LENGTH, StandardCharsets.US_ASCII).strip();
                if (!size.matches("[0-9]{1,10}") || Long.parseLong(size) > in.length() - at - HEAD) {
                    throw new IOException("a file in it is of no possible length");
                }
                members.add(new Member(new String(head, 0, NAME_LENGTH, StandardCharsets.ISO_8859_1).strip().replaceFirst("/$", ""), at + HEAD, Long.parseLong(size)));
                at += HEAD + Long.parseLong(size) + Long.parseLong(size) % 2;
            }
        }
        return members;
    }

    static byte[] bytes(Path file, Member member, ReadingBudget budget) throws IOException {
        budget.hold(2 * member.size());
        try (InputStream in = stream(file, member)) {
            return in.readAllBytes();
        }
    }

    /** All of them, one after the other. */
    static InputStream parts(Path file, List<Member> members) throws IOException {
        List<InputStream> parts = new ArrayList<>();
        for (Member member : members) {
            parts.add(stream(file, member));
        }
        return parts.isEmpty() ? new ByteArrayInputStream(new byte[0]) : new SequenceInputStream(Collections.enumeration(parts));
    }

    static InputStream stream(Path file, Member member) throws IOException {
        var channel = Files.newByteChannel(file).position(member.at());
        InputStream all = Channels.newInputStream(channel);
        return org.apache.commons.io.input.BoundedInputStream.builder().setInputStream(all).setMaxCount(member.size()).get();
    }
}
