using Mono.Cecil;
using NetArchTest.Rules;
using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Server.Listings;

namespace TinRabbit.Server.Tests;

/// <summary>The arrows between folders. A namespace is a folder; the folders are found, not listed.</summary>
public class ArchitectureTests
{
    private const string Server = "TinRabbit.Server";
    private const string Features = $"{Server}.Features";

    private static readonly Lazy<NamespaceGraph> Core = new(() => NamespaceGraph.Of(typeof(Tokens).Assembly));
    private static readonly Lazy<NamespaceGraph> Host = new(() => NamespaceGraph.Of(typeof(Program).Assembly));

    [Fact]
    public void Core_imports_nothing_of_ours_and_no_host() =>
        Holds(
            Types
                .InAssembly(typeof(Tokens).Assembly)
                .ShouldNot()
                .HaveDependencyOnAny(
                    "TinRabbit.Market",
                    "TinRabbit.Server",
                    "Microsoft.AspNetCore",
                    "Microsoft.EntityFrameworkCore",
                    "System.Net.Http",
                    "System.IO.File",
                    "System.Random",
                    "System.TimeProvider"
                )
        );

    [Fact]
    public void Core_never_reads_the_clock() =>
        Assert.Equal(
            [],
            MethodsOf(typeof(Tokens).Assembly)
                .Where(m =>
                    CallsOf(m)
                        .Any(c =>
                            c.DeclaringType.Name is "DateTime" or "DateTimeOffset" && c.Name is "get_UtcNow" or "get_Now" or "get_Today"
                        )
                )
                .Select(m => m.FullName)
        );

    [Fact]
    public void The_market_knows_only_core() =>
        Holds(
            Types
                .InAssembly(typeof(IMarket).Assembly)
                .ShouldNot()
                .HaveDependencyOnAny("TinRabbit.Server", "Microsoft.AspNetCore", "Microsoft.EntityFrameworkCore")
        );

    [Fact]
    public void No_two_folders_need_each_other()
    {
        Assert.Equal([], Core.Value.Circles());
        Assert.Equal([], Host.Value.Circles());
    }

    [Fact]
    public void A_feature_knows_modules_and_no_other_feature()
    {
        var features = Host.Value.Namespaces.Where(n => n.StartsWith($"{Features}.", StringComparison.Ordinal)).ToList();
        Assert.Contains($"{Features}.Watch", features);
        Assert.Equal(
            [],
            from one in features
            from other in Host.Value.UsedBy(one)
            where features.Contains(other)
            select $"{one} → {other}"
        );
    }

    [Fact]
    public void A_module_knows_no_feature_and_nothing_of_hosting() =>
        Assert.Equal(
            [],
            from module in Host.Value.Namespaces
            where module != Server && module != $"{Server}.Hosting" && !module.StartsWith(Features, StringComparison.Ordinal)
            from other in Host.Value.UsedBy(module)
            where other == $"{Server}.Hosting" || other.StartsWith(Features, StringComparison.Ordinal)
            select $"{module} → {other}"
        );

    [Fact]
    public void Storage_knows_no_module() => Assert.Equal([], Host.Value.UsedBy($"{Server}.Storage"));

    [Fact]
    public void Only_the_editor_changes_the_text_of_a_listing()
    {
        string[] setters = ["set_Copy", "set_Revision", "set_SavedAt", "set_LeadKey"];
        string[] heads = ["set_Slug", "set_Heading", "set_MenuName", "set_Title", "set_LinksTo"];
        var writers = MethodsOf(typeof(Program).Assembly)
            .Where(m => m.DeclaringType.Name is not (nameof(ListingRow) or nameof(PageRow)))
            .Where(m =>
                CallsOf(m)
                    .Any(called =>
                        (called.DeclaringType.Name == nameof(ListingRow) && setters.Contains(called.Name))
                        || (called.DeclaringType.Name == nameof(PageRow) && heads.Contains(called.Name))
                    )
            )
            .Select(m => Outermost(m.DeclaringType).Name)
            .Distinct();
        Assert.Equal([nameof(ListingEditor)], writers);
    }

    private static IEnumerable<MethodReference> CallsOf(MethodDefinition method) =>
        method.Body.Instructions.Select(i => i.Operand).OfType<MethodReference>();

    private static IEnumerable<MethodDefinition> MethodsOf(System.Reflection.Assembly assembly) =>
        AssemblyDefinition
            .ReadAssembly(assembly.Location, new() { InMemory = true })
            .MainModule.GetTypes()
            .SelectMany(t => t.Methods)
            .Where(m => m.HasBody);

    // Lambdas and state machines are types inside the one that they are written in.
    private static TypeDefinition Outermost(TypeDefinition type) => type.DeclaringType is { } outer ? Outermost(outer) : type;

    private static void Holds(ConditionList rule)
    {
        var result = rule.GetResult();
        Assert.True(result.IsSuccessful, string.Join(", ", result.FailingTypeNames ?? []));
    }
}
