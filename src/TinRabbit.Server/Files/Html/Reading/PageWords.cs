using System.Text.RegularExpressions;

namespace TinRabbit.Server.Files.Html.Reading;

/// <summary>What pages say in English, German, French, Spanish, Italian, Portuguese and Dutch about results, ads, prices and ratings.</summary>
internal static partial class PageWords
{
    /// <summary>Whether a label says that a listing is an ad.</summary>
    public static bool SaysAd(string text) => text.Length <= 60 && Ad().IsMatch(text);

    /// <summary>Whether a text says that shipping costs nothing.</summary>
    public static bool SaysFreeShipping(string text) => text.Length <= 120 && FreeShipping().IsMatch(text);

    /// <summary>Whether a text is about shipping, so that a price in it is not the listing's.</summary>
    public static bool IsAboutShipping(string text) => Shipping().IsMatch(text);

    /// <summary>Whether a price is what shipping costs, by the text before it and behind it: "+ £3 delivery" is, "£41.95 Free delivery" is not.</summary>
    public static bool IsOfShipping(string before, string behind) =>
        IsAboutShipping(before) || (IsAboutShipping(behind) && !SaysFreeShipping(behind));

    /// <summary>Whether a text before a price says that it is no longer asked.</summary>
    public static bool SaysBefore(string text) => Before().IsMatch(text);

    /// <summary>Whether a price is one of several payments, or one for a unit.</summary>
    public static bool IsPart(string before, string after) => PerUnit().IsMatch(after) || Instalment().IsMatch(before + " " + after);

    /// <summary>Whether a heading is over listings that the search did not find.</summary>
    public static bool IsAside(string heading) => heading.Length <= 120 && Aside().IsMatch(heading);

    /// <summary>Whether a heading is over related searches.</summary>
    public static bool IsRelated(string heading) => heading.Length <= 120 && Related().IsMatch(heading);

    /// <summary>Whether a button puts something into a basket.</summary>
    public static bool SaysBuy(string text) => text.Length <= 60 && Buy().IsMatch(text);

    /// <summary>The shop that a text names, such as “by Fen Works”; null where it names none.</summary>
    public static string? ShopIn(string text) =>
        text.Length <= 80 && Shop().Match(text) is { Success: true } found && !found.Groups["shop"].Value.Any(char.IsAsciiDigit)
            ? found.Groups["shop"].Value.Trim()
            : null;

    /// <summary>The number of results that a text states, and the first that is shown; null where it states none.</summary>
    public static (long Total, int First)? TotalIn(string text)
    {
        if (text.Length > 200)
            return null;
        if (Range().Match(text) is { Success: true } range && PriceText.Whole(range.Groups["all"].Value) is { } all)
            return (all, (int)Math.Min(int.MaxValue, PriceText.Whole(range.Groups["first"].Value) ?? 1));
        return Total().Match(text) is { Success: true } total && PriceText.Whole(total.Groups["all"].Value) is { } only ? (only, 1) : null;
    }

    /// <summary>A search that a text quotes, such as results for “notebook cover”; null where it quotes none.</summary>
    public static string? QueryIn(string text) =>
        text.Length <= 300 && Quoted().Match(text) is { Success: true } quoted ? quoted.Groups["query"].Value.Trim() : null;

    private const string Number = @"\d{1,3}(?:[.,’'\u00a0\u202f ]\d{3})+|\d+";

    private const string Things =
        "results?|items?|listings?|products?|ergebnisse[n]?|artikel[n]?|treffer[n]?|produkte[n]?|angebote[n]?|résultats?|articles?|produits?|annonces?|"
        + "resultados?|artículos?|productos?|anuncios?|risultat[io]|articol[io]|prodott[io]|annunci|produtos?|itens|artigos?|resultaten|producten|zoekresultaten";

    [GeneratedRegex(
        @"^\W*(ads?|advert(isement)?|sponsored( (listing|result))?|promoted|anzeige|werbung|gesponsert(es)?|annonce|sponsorisée?|publicité|anuncio|patrocinad[oa]|publicidad|promocionado|sponsorizzat[oa]|annuncio|pubblicità|advertentie|gesponsord|publicidade)\b(\W*$|\s+(by|from|von|par|de|di|da|van|door)\b)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Ad();

    [GeneratedRegex(
        @"\b(free (shipping|delivery|postage|p&p)|kostenlos(er|e)? (versand|lieferung)|versandkostenfrei|gratis ?versand|livraison (gratuite|offerte)|envío (gratis|gratuito)|spedizione (gratuita|gratis)|portes grátis|(frete|envio) (grátis|gratuito)|gratis (verzending|verzonden|bezorging))",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex FreeShipping();

    [GeneratedRegex(
        @"\b(shipping|delivery|postage|p&p|versand|lieferung|livraison|frais de port|envío|envio|gastos de envío|spedizione|consegna|frete|portes|verzend\w*|bezorg\w*)\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Shipping();

    [GeneratedRegex(
        @"\b(was|rrp|msrp|list price|original price|before|reg(ular)?\.? price|statt|uvp|vorher|bisher|originalpreis|ursprünglich\w*|avant|au lieu de|prix d[’']origine|prix conseillé|prix initial|antes|precio original|prima|anziché|invece di|prezzo originale|preço original|adviesprijs|oude prijs)\b:?\s*$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Before();

    [GeneratedRegex(@"^\s*(/|per\b|pro\b|par\b|por\b|al\b|je\b)", RegexOptions.IgnoreCase | RegexOptions.CultureInvariant)]
    private static partial Regex PerUnit();

    [GeneratedRegex(
        @"\b(\d+\s*(x|×)\b|instal?ments?|raten|mensualités|cuotas|rate da|parcelas|termijnen|save|spare|sparen|you save|économisez|ahorra|risparmi|poupe|bespaar)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Instalment();

    [GeneratedRegex(
        @"(you (may|might) (also )?like|also (bought|viewed)|recently viewed|recommended|inspired by|more (from|like)|similar (items|listings)|picked for you|trending|das könnte|auch (gefallen|angesehen|gekauft)|zuletzt angesehen|empfohlen|ähnliche (artikel|angebote)|vous aimerez|vous (aimerez|pourriez) (aussi|aimer)|consultés récemment|recommandé|articles similaires|también te (puede|podría)|te puede(n)? gustar|vistos recientemente|recomendad|artículos similares|potrebbe(ro)? (anche )?(piacerti|interessarti)|visti di recente|consigliat|articoli simili|também (pode|poderá) gostar|vistos recentemente|artigos semelhantes|misschien ook|recent bekeken|aanbevolen|vergelijkbare)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Aside();

    [GeneratedRegex(
        @"(related (searches|terms|search)|people also search|other searches|explore related|ähnliche (suchen|suchbegriffe|suchanfragen)|verwandte such\w*|recherches? (associées|similaires|liées)|búsquedas relacionadas|ricerche (correlate|simili)|pesquisas relacionadas|gerelateerde zoek\w*)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Related();

    [GeneratedRegex(
        @"\b(add to (cart|basket|bag)|buy (it )?now|in den (warenkorb|einkaufswagen)|jetzt kaufen|ajouter au panier|acheter|añadir (al carrito|a la cesta)|comprar|aggiungi al carrello|acquista|adicionar ao (carrinho|cesto)|in winkel(wagen|mand)|toevoegen)",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Buy();

    [GeneratedRegex(
        @"^\W*(?:(?:ad|anzeige|annonce|anuncio|annuncio|advertentie|sponsored)\s+)?(?:(?:sold |made |shop |verkauft |vendu |vendido |venduto |verkocht )?(?:by|from|von|par|por|di|da|de|van|door)|shop|seller|verkäufer|boutique|vendeur|tienda|vendedor|negozio|venditore|loja|winkel|verkoper)\s*:?\s+(?<shop>[^\d(][^\n(]{1,50})$",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Shop();

    [GeneratedRegex(
        $@"(?<first>{Number})\s*(?:[–—-]|to|bis|à|a|al|tot|até)\s*(?:{Number})\s*(?:of|von|sur|de|di|van|\/|out of)\s*(?:(?:over|about|around|more than|über|ca\.?|mehr als|etwa|plus de|environ|más de|unos|oltre|circa|mais de|cerca de|meer dan|ruim)\s*(?:de\s+)?)?(?<all>{Number})",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Range();

    [GeneratedRegex(
        $@"(?<![\d.,])(?<all>{Number})\+?\s*(?:(?!in |für |pour )\w+\s+){{0,1}}(?:{Things})\b",
        RegexOptions.IgnoreCase | RegexOptions.CultureInvariant
    )]
    private static partial Regex Total();

    [GeneratedRegex("[“„«\"‘‚](?<query>[^“”„«»\"‘’]{2,120})[”“»\"’‘]", RegexOptions.CultureInvariant)]
    private static partial Regex Quoted();
}
