package rivo.server.document;

/** Something that administrators edit as a whole. An immutable value with one JSON form. */
public interface Document {

    /** Unique within its kind, and never changed. */
    String id();
}
