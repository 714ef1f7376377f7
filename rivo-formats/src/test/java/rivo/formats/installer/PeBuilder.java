package rivo.formats.installer;

import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** Makes small Windows programs by the PE specification, with just what a test wants in them. */
final class PeBuilder {

    private static final int ALIGNMENT = 512;
    private static final int PAGE = 0x1000;
    private static final int OPTIONAL = 224;

    private record Part(String name, byte[] data) {
    }

    private record Resource(int type, int name, int language, byte[] data) {
    }

    private final List<Part> sections = new ArrayList<>();
    private final List<Resource> resources = new ArrayList<>();
    private byte[] overlay = {};
    private int machine = 0x14c;
    private int characteristics = 0x102;
    private int subsystem = 2;

    PeBuilder machine(int number) {
        machine = number;
        return this;
    }

    PeBuilder library() {
        characteristics |= 0x2000;
        return this;
    }

    PeBuilder subsystem(int number) {
        subsystem = number;
        return this;
    }

    PeBuilder section(String name, byte[] data) {
        sections.add(new Part(name, data));
        return this;
    }

    PeBuilder resource(int type, int name, int language, byte[] data) {
        resources.add(new Resource(type, name, language, data));
        return this;
    }

    PeBuilder overlay(byte[] bytes) {
        overlay = bytes;
        return this;
    }

    /** A version resource with these texts, and the numbers of the fixed block where there are some. */
    static byte[] version(Map<String, String> texts, int... numbers) {
        ByteArrayOutputStream strings = new ByteArrayOutputStream();
        texts.forEach((key, value) -> strings.writeBytes(block(key, utf16(value + "\0"), value.length() + 1, 1, new byte[0])));
        byte[] table = block("040904b0", new byte[0], 0, 1, strings.toByteArray());
        byte[] fixed = {};
        if (numbers.length == 4) {
            fixed = ByteBuffer.allocate(52).order(ByteOrder.LITTLE_ENDIAN).putInt(0xFEEF04BD).putInt(0x10000).putInt(numbers[0] << 16 | numbers[1])
                    .putInt(numbers[2] << 16 | numbers[3]).array();
        }
        return block("VS_VERSION_INFO", fixed, fixed.length, 0, block("StringFileInfo", new byte[0], 0, 1, table));
    }

    private static byte[] utf16(String text) {
        return text.getBytes(StandardCharsets.UTF_16LE);
    }

    private static byte[] block(String key, byte[] value, int valueLength, int type, byte[] children) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(new byte[6]);
        out.writeBytes(utf16(key + "\0"));
        pad(out, 4);
        out.writeBytes(value);
        pad(out, 4);
        out.writeBytes(children);
        pad(out, 4);
        byte[] all = out.toByteArray();
        ByteBuffer.wrap(all).order(ByteOrder.LITTLE_ENDIAN).putShort((short) all.length).putShort((short) valueLength).putShort((short) type);
        return all;
    }

    private static void pad(ByteArrayOutputStream out, int to) {
        while (out.size() % to != 0) {
            out.write(0);
        }
    }

    byte[] bytes() {
        List<Part> all = new ArrayList<>(sections);
        int resourceAddress = PAGE * (all.size() + 1);
        if (!resources.isEmpty()) {
            all.add(new Part(".rsrc", resourceSection(resourceAddress)));
        }
        ByteBuffer head = ByteBuffer.allocate(ALIGNMENT * 2).order(ByteOrder.LITTLE_ENDIAN);
        head.putShort((short) 0x5a4d).putInt(0x3c, 0x40);
        head.position(0x40).putInt(0x4550).putShort((short) machine).putShort((short) all.size()).putInt(0).putInt(0).putInt(0).putShort((short) OPTIONAL)
                .putShort((short) characteristics);
        int optional = head.position();
        head.putShort(optional, (short) 0x10b).putShort(optional + 68, (short) subsystem).putInt(optional + 92, 16);
        if (!resources.isEmpty()) {
            head.putInt(optional + 96 + 16, resourceAddress).putInt(optional + 96 + 20, all.get(all.size() - 1).data().length);
        }
        head.position(optional + OPTIONAL);
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        int at = ALIGNMENT * 2;
        for (int i = 0; i < all.size(); i++) {
            byte[] name = new byte[8];
            byte[] told = all.get(i).name().getBytes(StandardCharsets.US_ASCII);
            System.arraycopy(told, 0, name, 0, told.length);
            int size = (all.get(i).data().length + ALIGNMENT - 1) / ALIGNMENT * ALIGNMENT;
            head.put(name).putInt(size).putInt(PAGE * (i + 1)).putInt(size).putInt(at).putInt(0).putInt(0).putInt(0).putInt(0);
            at += size;
        }
        out.writeBytes(head.array());
        for (Part part : all) {
            out.writeBytes(part.data());
            pad(out, ALIGNMENT);
        }
        out.writeBytes(overlay);
        return out.toByteArray();
    }

    /** Type, name and language, each a table of its own. */
    private byte[] resourceSection(int address) {
        Map<Integer, Map<Integer, List<Resource>>> types = new LinkedHashMap<>();
        resources.forEach(one -> types.computeIfAbsent(one.type(), k -> new LinkedHashMap<>()).computeIfAbsent(one.name(), k -> new ArrayList<>()).add(one));
        ByteBuffer out = ByteBuffer.allocate(1 << 16).order(ByteOrder.LITTLE_ENDIAN);
        int tables = 16 + 8 * types.size();
        for (Map<Integer, List<Resource>> names : types.values()) {
            tables += 16 + 8 * names.size();
            for (List<Resource> languages : names.values()) {
                tables += 16 + 8 * languages.size() + 16 * languages.size();
            }
        }
        int data = (tables + 7) / 8 * 8;
        int free = 16 + 8 * types.size();
        int typeEntry = 16;
        out.putShort(14, (short) types.size());
        for (Map.Entry<Integer, Map<Integer, List<Resource>>> type : types.entrySet()) {
            int nameTable = free;
            out.putInt(typeEntry, type.getKey()).putInt(typeEntry + 4, nameTable | 0x80000000);
            typeEntry += 8;
            out.putShort(nameTable + 14, (short) type.getValue().size());
            free += 16 + 8 * type.getValue().size();
            int nameEntry = nameTable + 16;
            for (Map.Entry<Integer, List<Resource>> name : type.getValue().entrySet()) {
                int languageTable = free;
                out.putInt(nameEntry, name.getKey()).putInt(nameEntry + 4, languageTable | 0x80000000);
                nameEntry += 8;
                out.putShort(languageTable + 14, (short) name.getValue().size());
                free += 16 + 8 * name.getValue().size();
                int languageEntry = languageTable + 16;
                for (Resource resource : name.getValue()) {
                    out.putInt(languageEntry, resource.language()).putInt(languageEntry + 4, free);
                    languageEntry += 8;
                    out.putInt(free, address + data).putInt(free + 4, resource.data().length);
                    free += 16;
                    out.put(data, resource.data());
                    data += (resource.data().length + 7) / 8 * 8;
                }
            }
        }
        byte[] all = new byte[data];
        out.get(0, all);
        return all;
    }
}
