using Mono.Cecil;
using NetArchTest.Rules;
using TinRabbit.Core.Words;
using TinRabbit.Market;
using TinRabbit.Server.Listings;
using TinRabbit.Server.Storage;

namespace TinRabbit.Server.Tests;

public class ArchitectureTests
{
    private static readonly string[] Features = ["Dig", "Pick", "Write", "Weigh", "Shop", "Engine"];

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
                    "System.DateTime",
                    "System.TimeProvider"
                )
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
    public void A_feature_does_not_reach_into_another()
    {
        foreach (var feature in Features)
            Holds(
                Types
                    .InAssembly(typeof(Program).Assembly)
                    .That()
                    .ResideInNamespace($"TinRabbit.Server.{feature}")
                    .ShouldNot()
                    .HaveDependencyOnAny([.. Features.Where(f => f != feature).Select(f => $"TinRabbit.Server.{f}")])
            );
    }

    [Fact]
    public void What_is_shared_knows_no_feature() =>
        Holds(
            Types
                .InAssembly(typeof(Program).Assembly)
                .That()
                .ResideInNamespace("TinRabbit.Server.Storage")
                .Or()
                .ResideInNamespace("TinRabbit.Server.Formats")
                .ShouldNot()
                .HaveDependencyOnAny([.. Features.Select(f => $"TinRabbit.Server.{f}")])
        );

    [Fact]
    public void Only_the_editor_changes_the_text_of_a_listing()
    {
        string[] setters = ["set_Copy", "set_Revision", "set_SavedAt", "set_LeadKey"];
        var writers = ServerMethods()
            .Where(m => m.DeclaringType.Name != nameof(ListingRow))
            .Where(m =>
                m.Body.Instructions.Select(i => i.Operand)
                    .OfType<MethodReference>()
                    .Any(called =>
                        (called.DeclaringType.Name == nameof(ListingRow) && setters.Contains(called.Name))
                        || (called.DeclaringType.Name == nameof(PageRow) && called.Name == "set_Slug")
                    )
            )
            .Select(m => Outermost(m.DeclaringType).Name)
            .Distinct();
        Assert.Equal([nameof(ListingEditor)], writers);
    }

    private static IEnumerable<MethodDefinition> ServerMethods() =>
        AssemblyDefinition
            .ReadAssembly(typeof(Program).Assembly.Location, new() { InMemory = true })
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
