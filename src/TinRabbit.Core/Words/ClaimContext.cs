using static TinRabbit.Core.Words.ClaimGrammar;

namespace TinRabbit.Core.Words;

/// <summary>
/// Whether a word of the vocabulary claims something of the product where it stands, or describes something else (docs/model.md, "Facts"): a
/// leather spine of a notebook is a claim, a leather bag that it fits is not.
/// </summary>
internal static class ClaimContext
{
    // How far words may stand from what they belong to.
    private const int Reach = 5;

    /// <summary>Whether what was found in a text claims something of the product.</summary>
    /// <param name="text">The text.</param>
    /// <param name="number">Which of what was found.</param>
    /// <param name="facts">The product's facts.</param>
    /// <param name="kind">What kind of text it is.</param>
    public static bool IsAboutProduct(ClaimText text, int number, FactIndex facts, TextKind kind)
    {
        var found = text.Found[number];
        if (IsUndone(text, found, facts) || IsName(text, found, kind))
            return false;
        if (found.Measure is not null)
            return IsOfProduct(text, found, facts, kind);
        // "20 cm tall" is one claim.
        if (found.Facet == Facet.Size && found.First > 0 && text.FoundAt(found.First - 1) is { Measure: not null })
            return false;
        var before = IsBeforeProduct(text, found, facts);
        var elsewhere =
            IsOfSomethingElse(text, found, kind)
            || (kind == TextKind.Prose && (IsOfParcel(text, found, facts) || IsOfSeller(text, found, facts)));
        if (ClaimText.IsCount(found))
            return !elsewhere;
        if (found.Entry is { IsAmbiguous: true })
            return !elsewhere
                && (
                    before
                    || (
                        kind == TextKind.Prose
                        && IsAlone(text, found)
                        && (IsMadeOf(text, found, facts) || (found.Facet != Facet.Audience && IsSaidOfProduct(text, found, facts)))
                    )
                );
        if (kind == TextKind.Title)
            return found.Entry is { NeedsContext: true }
                ? IsInContext(text, found, facts)
                    || (before && found.Facet == Facet.Audience)
                    || text.Tokens.Count == found.Last - found.First + 1
                : !elsewhere;
        if (found.Entry is { NeedsContext: true, Facet: Facet.Property })
            return IsInContext(text, found, facts);
        return found.Facet switch
        {
            Facet.Audience => IsInContext(text, found, facts) || (before && !elsewhere),
            Facet.Occasion => IsBeforeGift(text, found) || (before && !elsewhere),
            _ when elsewhere => false,
            _ => before
                || (IsAlone(text, found) && IsClaimedAlone(text, found, facts))
                || IsSubject(text, found)
                || IsBeforeClaim(text, number, facts, kind)
                // "Waterproof webbing": a sentence that begins with a property.
                || (found.Facet == Facet.Property && text.Breaks[found.First] == '.'),
        };
    }

    private static bool IsInContext(ClaimText text, FoundWord found, FactIndex facts) =>
        found.Facet == Facet.Property
            ? IsMadeOf(text, found, facts) || (found.First > 0 && text.Tokens[found.First - 1].Word == "from")
            : IsForWhom(text, found) || IsBeforeGift(text, found);

    private static bool IsClaimedAlone(ClaimText text, FoundWord found, FactIndex facts) =>
        IsMadeOf(text, found, facts)
        || IsSaidOfProduct(text, found, facts)
        || OpensSentence(text, found)
        || (found.Facet == Facet.Property && OpensPhrase(text, found));

    // A measure is the product's, unless it is a range or another thing's: "fits necks from 30 to 40 cm", "a 15 inch laptop".
    private static bool IsOfProduct(ClaimText text, FoundWord found, FactIndex facts, TextKind kind)
    {
        for (var i = found.First - 1; i >= 0 && i >= found.First - 4 && text.Breaks[i + 1] != '.'; i--)
            if (Lists["range"].Contains(text.Tokens[i].Word) || (kind == TextKind.Title && text.Tokens[i].Word == "for"))
                return false;
        if (kind == TextKind.Title || IsBeforeProduct(text, found, facts) || IsAlone(text, found))
            return true;
        // "45 cm high": an adjective, and then no noun.
        var next = found.Last + 1;
        return Thesaurus.IsAdjective(text.Tokens[next].Word)
            && (next + 1 == text.Tokens.Count || text.Breaks[next + 1] != ' ' || IsFunctionWord(text.Tokens[next + 1].Word));
    }

    // "Our looms are made of oak", "we dye the yarn in a copper pot": what the seller has.
    private static bool IsOfSeller(ClaimText text, FoundWord found, FactIndex facts)
    {
        var start = StartOfSentence(text, found.First);
        if (text.Tokens[start].Word is not ("our" or "we" or "my" or "i") || found.Facet is Facet.Audience or Facet.Occasion)
            return false;
        for (var i = start; i < text.Tokens.Count && (i == start || text.Breaks[i] != '.'); i++)
            if (facts.Nouns.Contains(text.Keys[i]))
                return false;
        return text.Tokens[start].Word is "our" or "my"
            || !IsMadeOf(text, found, facts)
            || text.Tokens[found.First - 1].Word is "a" or "an" or "the";
    }

    // "The box has a velvet lining": the box that it comes in.
    private static bool IsOfParcel(ClaimText text, FoundWord found, FactIndex facts)
    {
        for (var i = found.First - 1; i >= 0 && text.Breaks[i + 1] != '.'; i--)
            if (Lists["parcel"].Contains(text.Tokens[i].Word))
                return !facts.Nouns.Contains(text.Keys[i]);
        return false;
    }

    // "The wooden wick crackles", "the opal flashes": what a sentence begins with is the product, or a part of it.
    private static bool IsSubject(ClaimText text, FoundWord found)
    {
        if (found.Facet is not (Facet.Material or Facet.Colour or Facet.Property) || Lists["general"].Contains(found.Key))
            return false;
        var at = FirstOfRun(text, found);
        if (
            at == 0
            || text.Breaks[at] != ' '
            || text.Tokens[at - 1].Word is not ("the" or "this" or "these" or "its" or "each")
            || text.Breaks[at - 1] != '.'
        )
            return false;
        var next = found.Last + 1;
        if (
            next < text.Tokens.Count
            && text.Breaks[next] == ' '
            && (IsVerb(text, next, found.Last) || Lists["being"].Contains(text.Tokens[next].Word))
        )
            return true;
        for (var i = next; i < text.Tokens.Count && i < next + 3 && text.Breaks[i] == ' '; i++)
            if (i > next && (IsVerb(text, i, i - 1) || Lists["being"].Contains(text.Tokens[i].Word)))
                return true;
            else if (IsFunctionWord(text.Tokens[i].Word))
                return false;
        return false;
    }

    // "plastic free", "leather look", "rose scented": the next word takes the claim back, unless it belongs to what the product is: an oak
    // garden bench is of oak.
    private static bool IsUndone(ClaimText text, FoundWord found, FactIndex facts) =>
        Next(text, found.Last) is { } next
        && Lists["undoing"].Contains(text.Tokens[next].Word)
        && !facts.NameWords.Contains(text.Keys[next]);

    // "Oak Street", "Silver Lane": a place or a shop.
    private static bool IsName(ClaimText text, FoundWord found, TextKind kind)
    {
        if (
            Next(text, found.Last) is not { } next
            || !char.IsUpper(text.Text[text.Tokens[next].Start])
            || !char.IsUpper(text.Text[found.Start])
        )
            return false;
        return Lists["place"].Contains(text.Tokens[next].Word)
            || (kind == TextKind.Prose && text.Breaks[found.First] == ' ' && !Lists["occasion-thing"].Contains(text.Tokens[next].Word));
    }

    // Before the product's noun, or one of its parts; words of the vocabulary, and others that describe, may stand between.
    private static bool IsBeforeProduct(ClaimText text, FoundWord found, FactIndex facts)
    {
        for (var (at, steps) = (found.Last + 1, 0); at < text.Tokens.Count && steps < Reach; at++, steps++)
        {
            var word = text.Tokens[at].Word;
            if (text.Breaks[at] == '.')
                return false;
            if (at == found.Last + 1 && word == "made" && found.Facet == Facet.Property)
                return true;
            // "oak and brass handles": a list of such words goes on.
            if (text.Breaks[at] == ',' || word is "and" or "or" or "y" or "o" or "&")
            {
                var next = word is "and" or "or" or "y" or "o" ? at + 1 : at;
                if (next >= text.Tokens.Count || text.FoundAt(next) is not { Facet: not null } || text.Breaks[next] == '.')
                    return false;
                at = next;
                continue;
            }

            if (text.FoundAt(at) is { Facet: { } facet } && !IsThing(text, at, found, facts))
                continue;
            if (IsThing(text, at, found, facts))
                return true;
            if (IsFunctionWord(word) || !CanDescribe(text, at))
                return facts.Nouns.Contains(Joined(text, at));
        }

        return false;
    }

    // Whether a token is the product or a part of it. A glaze or a print has a colour and nothing else.
    private static bool IsThing(ClaimText text, int at, FoundWord found, FactIndex facts)
    {
        var key = text.Keys[at];
        if (facts.Nouns.Contains(key))
            return true;
        if (Lists["colour-part"].Contains(key))
            return found.Facet == Facet.Colour;
        return Lists["part"].Contains(key) && !IsFollowedByOtherThing(text, at, facts);
    }

    // "brass top hat": what looks like a part belongs to another thing.
    private static bool IsFollowedByOtherThing(ClaimText text, int at, FactIndex facts)
    {
        var next = at + 1;
        return next < text.Tokens.Count
            && text.Breaks[next] == ' '
            && text.IsContent(next)
            && !facts.Nouns.Contains(text.Keys[next])
            && !Lists["part"].Contains(text.Keys[next])
            && !IsVerb(text, next, at)
            && Thesaurus.IsNoun(text.Tokens[next].Word)
            && !Thesaurus.IsAdjective(text.Tokens[next].Word);
    }

    // After "made, carved, woven, painted, glazed, comes, printed" with "of, from, in"; or in a colour after the product's noun.
    private static bool IsMadeOf(ClaimText text, FoundWord found, FactIndex facts)
    {
        var at = Back(text, found.First - 1);
        if (at < 0)
            return false;
        var link = text.Tokens[at].Word;
        if (found.Facet == Facet.Colour && Lists["colouring"].Contains(link))
            return true;
        if (link is not ("of" or "from" or "in" or "with" or "out" or "using" or "by" or "between"))
            return false;
        // "in a red tin" is where it is, not what it is made of.
        if (link == "in" && found.Facet == Facet.Material)
            for (var i = at + 1; i < found.First; i++)
                if (text.Tokens[i].Word is "a" or "an" or "the")
                    return false;
        for (var (i, steps) = (at - 1, 0); i >= 0 && steps < 6 && text.Breaks[i + 1] != '.'; i--)
        {
            var word = text.Tokens[i].Word;
            if (text.FoundAt(i) is { Facet: not null } && !Lists["making"].Contains(word))
            {
                if (link == "in" && found.Facet == Facet.Colour && i == at - 1)
                    return true;
                continue;
            }

            if (word is not ("and" or "or" or "in"))
                steps++;
            // "comes in a cotton bag" is about the bag; IsAlone has seen to that. "Wrapped in paper" is about the parcel.
            if (Lists["packing"].Contains(word))
                return false;
            if (Lists["making"].Contains(word) || (link == "from" && word.EndsWith("ed", StringComparison.Ordinal)))
                return link != "with" || word is not ("made" or "comes");
            if (link == "in" && facts.Nouns.Contains(text.Keys[i]) && i == at - 1)
                return true;
        }

        return false;
    }

    // "It is oak", "the lid is brass", "this mug is dishwasher safe", "the board measures 30 cm".
    private static bool IsSaidOfProduct(ClaimText text, FoundWord found, FactIndex facts)
    {
        var at = Back(text, found.First - 1);
        if (at < 0 || !Lists["being"].Contains(text.Tokens[at].Word))
            return found.First == 0 ? false : text.Tokens[Math.Max(0, at)].Word is "it's" or "they're" or "that's";
        if (
            text.Tokens[StartOfSentence(text, found.First)].Word is "the" or "these" or "each" or "both"
            && !text.Breaks.AsSpan(StartOfSentence(text, found.First) + 1, at - StartOfSentence(text, found.First)).Contains(',')
        )
            return true;
        for (var i = at - 1; i >= 0 && i >= at - 4 && text.Breaks[i + 1] != '.'; i--)
            if (
                text.Tokens[i].Word is "it" or "this" or "these" or "they" or "which" or "that"
                || facts.Nouns.Contains(text.Keys[i])
                || Lists["part"].Contains(text.Keys[i])
                || (found.Facet == Facet.Colour && Lists["colour-part"].Contains(text.Keys[i]))
            )
                return true;
        return false;
    }

    // "Silk, so it stays cool": nothing before it in the sentence.
    private static bool OpensSentence(ClaimText text, FoundWord found)
    {
        var at = FirstOfRun(text, found, "and", "in");
        return text.Breaks[at] == '.' && !(Lists["general"].Contains(found.Key) && at < found.First);
    }

    // After a comma, or "and" in a list of what is true of the product.
    private static bool OpensPhrase(ClaimText text, FoundWord found)
    {
        var at = FirstOfRun(text, found);
        return text.Breaks[at] != ' ' || text.Tokens[at - 1].Word is "and" or "or" or "a" or "as" or "is" or "are" or "also" or "both";
    }

    // "organic cotton tote": what stands before a word that claims something claims something too.
    private static bool IsBeforeClaim(ClaimText text, int number, FactIndex facts, TextKind kind)
    {
        var found = text.Found[number];
        return number + 1 < text.Found.Count
            && text.Found[number + 1] is { Facet: not null } next
            && next.First == found.Last + 1
            && text.Breaks[next.First] == ' '
            && IsAboutProduct(text, number + 1, facts, kind);
    }

    // A person after "for": "for men and women", "for your best friend".
    private static bool IsForWhom(ClaimText text, FoundWord found)
    {
        for (var (i, steps) = (found.First - 1, 0); i >= 0 && steps < Reach && text.Breaks[i + 1] != '.'; i--, steps++)
        {
            var word = text.Tokens[i].Word;
            if (word is "for" or "para")
                return true;
            if (
                text.FoundAt(i) is not { Facet: Facet.Audience }
                && !IsFunctionWord(word)
                && !Thesaurus.IsAdjective(word)
                && !Lists["degree"].Contains(word)
                // "for boat builders"
                && !(steps == 0 && Thesaurus.IsNoun(word))
            )
                return false;
        }

        return false;
    }

    // An occasion or a person before "gift, present, table, party".
    private static bool IsBeforeGift(ClaimText text, FoundWord found)
    {
        // "A present for a first birthday".
        for (var i = found.First - 1; i >= 1 && i >= found.First - 4 && text.Breaks[i + 1] == ' '; i--)
            if (text.Tokens[i].Word == "for")
                return found.Facet == Facet.Occasion && Lists["occasion-thing"].Contains(text.Keys[i - 1]);
        for (var at = found.Last + 1; at < text.Tokens.Count && at <= found.Last + 2; at++)
        {
            if (text.Breaks[at] != ' ')
                return false;
            if (Lists["occasion-thing"].Contains(text.Keys[at]))
                return true;
            if (text.FoundAt(at) is null && !Thesaurus.IsAdjective(text.Tokens[at].Word))
                return false;
        }

        return false;
    }

    // Behind words that lead to another thing: "fits a leather bag", "beside an oak desk", "no plastic".
    private static bool IsOfSomethingElse(ClaimText text, FoundWord found, TextKind kind)
    {
        var crossed = false;
        if (
            kind == TextKind.Prose
            && found.Facet is not (Facet.Audience or Facet.Occasion)
            && Lists["telling"].Contains(text.Tokens[StartOfSentence(text, found.First)].Word)
        )
            return StartOfSentence(text, found.First) < found.First;
        for (var (i, steps) = (found.First - 1, 0); i >= 0 && steps < Reach && text.Breaks[i + 1] != '.'; i--, steps++)
        {
            var word = text.Tokens[i].Word;
            if (text.Breaks[i + 1] == ',' && !(word is "and" or "or" || text.FoundAt(i) is { Facet: not null }))
                return false;
            if (text.FoundAt(i) is null && (Lists["negation"].Contains(word) || Lists["other"].Contains(word)))
                return true;
            crossed |= word is "and" or "or";
            if (kind == TextKind.Title && word is "for" && found.Facet is not (Facet.Audience or Facet.Occasion))
                return true;
            if (
                text.FoundAt(i) is { Facet: not null }
                || Lists["degree"].Contains(word)
                || word is "a" or "an" or "the" or "any" or "every" or "and" or "or" or "most" or "all" or "of" or "some" or "your"
            )
                continue;
            // Behind "a leather bag or" stands a second thing of the same kind.
            if (!Thesaurus.IsAdjective(word) && !(crossed && Thesaurus.IsNoun(word)))
                return false;
        }

        return false;
    }
}
