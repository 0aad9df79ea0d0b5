namespace TinRabbit.Core;

/// <summary>The largest input of each kind that the program takes. Everything that reads input refuses more, and names the bound.</summary>
public static class Bounds
{
    /// <summary>Characters (UTF-16 units) of a search term.</summary>
    public const int TermLength = 200;

    /// <summary>Words of a search term.</summary>
    public const int TermWords = 40;

    /// <summary>Terms of one request that weighs or checks.</summary>
    public const int Terms = 20_000;

    /// <summary>Terms of one request that fills a field.</summary>
    public const int FillTerms = 5_000;

    /// <summary>Terms of one weave.</summary>
    public const int WeaveTerms = 12;

    /// <summary>Terms that may be picked, dropped or translated by one request.</summary>
    public const int TermsAtOnce = 5_000;

    /// <summary>Picks of a product.</summary>
    public const int Picks = 10_000;

    /// <summary>Characters of the text of one field.</summary>
    public const int TextLength = 200_000;

    /// <summary>Characters of a title that is read against a shelf, or saved as a take.</summary>
    public const int ReadLength = 5_000;

    /// <summary>Characters of all texts of a listing together.</summary>
    public const int CopyLength = 1_000_000;

    /// <summary>Items of a list field: tags, bullet points, attribute values.</summary>
    public const int Items = 1_000;

    /// <summary>Attributes of a listing.</summary>
    public const int Attributes = 300;

    /// <summary>Items of any list that has no bound of its own.</summary>
    public const int List = 20_000;

    /// <summary>Columns of a table that is exported as it is shown.</summary>
    public const int ShownColumns = 100;

    /// <summary>Search results of one term that are judged: more than a shopper ever looks at.</summary>
    public const int JudgedResults = 200;

    /// <summary>Characters of a search result's title, or of the market's own name for it.</summary>
    public const int ResultName = 400;

    /// <summary>Characters of a name.</summary>
    public const int NameLength = 120;

    /// <summary>Characters of a note, a reason or a saved filter.</summary>
    public const int NoteLength = 2_000;

    /// <summary>Facts of one kind, such as materials.</summary>
    public const int Facts = 200;

    /// <summary>Countries that a seller sells in.</summary>
    public const int Countries = 60;

    /// <summary>Products of one file of schema.org data.</summary>
    public const int ImportedProducts = 5_000;

    /// <summary>Words whose claims a shop corrects or adds.</summary>
    public const int OwnWords = 1_000;

    /// <summary>Pictures of a product.</summary>
    public const int Pictures = 200;

    /// <summary>Bytes of a picture file.</summary>
    public const long PictureBytes = 25L << 20;

    /// <summary>Pixels of a picture, before it is made smaller.</summary>
    public const long PicturePixels = 64_000_000;

    /// <summary>Reviews of one side of a comparison.</summary>
    public const int Reviews = 5_000;

    /// <summary>Characters of a review.</summary>
    public const int ReviewLength = 5_000;

    /// <summary>Days on one side of a comparison.</summary>
    public const int Days = 3_660;

    /// <summary>Terms that one listing is checked for in one market.</summary>
    public const int FollowedTerms = 2_000;

    /// <summary>Rows of a file of found checks or of daily figures.</summary>
    public const int WatchRows = 200_000;

    /// <summary>The largest count of views, clicks, sales or results.</summary>
    public const long Count = 1_000_000_000_000;

    /// <summary>Change notes of a shop.</summary>
    public const int Notes = 50_000;

    /// <summary>Rivals of one listing.</summary>
    public const int Rivals = 50;

    /// <summary>Listings of one edit, and of one answer that weighs them.</summary>
    public const int Listings = 20_000;

    /// <summary>Moves of one answer.</summary>
    public const int Moves = 500;

    /// <summary>Pages of the web shop.</summary>
    public const int Pages = 20_000;

    /// <summary>Months of a search history.</summary>
    public const int Months = 600;

    /// <summary>Characters of a pasted list of terms.</summary>
    public const int PasteLength = 2_000_000;

    /// <summary>Bytes of a request other than an import.</summary>
    public const int RequestBytes = 16 << 20;

    /// <summary>Bytes of one file to import.</summary>
    public const long ImportBytes = 512L << 20;

    /// <summary>Bytes of all files that wait to be imported.</summary>
    public const long ImportBytesKept = 2L << 30;

    /// <summary>Seconds that a request may take which only computes: weighing, checking, filling.</summary>
    public const int ComputeSeconds = 4;

    /// <summary>Seconds that any other request may take. Imports, exports, digs and backups are not bound by it: each can be stopped.</summary>
    public const int RequestSeconds = 30;

    /// <summary>Rows of a file to import.</summary>
    public const int ImportRows = 2_000_000;

    /// <summary>Rows of a file that are looked at before it is imported.</summary>
    public const int ImportRowsInspected = 1_000;

    /// <summary>Rows that an import may refuse before it stops: beyond that, the columns are wrong.</summary>
    public const int ImportBadRows = 100_000;

    /// <summary>Columns of a file to import.</summary>
    public const int ImportColumns = 400;

    /// <summary>Characters of one cell of a file to import.</summary>
    public const int ImportCell = 32_767;

    /// <summary>Minutes that an import may take.</summary>
    public const int ImportMinutes = 15;

    /// <summary>Fields of a platform.</summary>
    public const int PlatformFields = 60;

    /// <summary>Banned phrases, ignored words, attribute options and the like of a platform.</summary>
    public const int PlatformList = 2_000;

    /// <summary>Categories of one field, at all levels together.</summary>
    public const int Categories = 20_000;

    /// <summary>Levels of categories.</summary>
    public const int CategoryLevels = 12;

    /// <summary>Characters of a text in a platform profile.</summary>
    public const int ProfileText = 2_000;

    /// <summary>Versions or takes of one page of an answer; the next page begins before the last one's ID.</summary>
    public const int PageRows = 50;
}
