using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace TinRabbit.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class CountriesAndKeptNumbers : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<TimeSpan>(
                name: "ClockWasAhead",
                table: "Shops",
                type: "TEXT",
                nullable: false,
                defaultValue: new TimeSpan(0, 0, 0, 0, 0));

            migrationBuilder.AddColumn<string>(
                name: "Countries",
                table: "Shops",
                type: "TEXT",
                nullable: false,
                defaultValueSql: "'[]'");

            migrationBuilder.AddColumn<bool>(
                name: "MayHoldSampleData",
                table: "Shops",
                type: "INTEGER",
                nullable: false,
                defaultValue: false);

            migrationBuilder.AddColumn<string>(
                name: "Language",
                table: "Shops",
                type: "TEXT",
                nullable: false,
                defaultValue: "");

            migrationBuilder.AddColumn<string>(
                name: "Kept",
                table: "Readings",
                type: "TEXT",
                nullable: true);

            // Only a program before this one has put sample data into a shop.
            migrationBuilder.Sql(
                """
                UPDATE Shops SET MayHoldSampleData = EXISTS(SELECT 1 FROM Readings WHERE Source = 'Sample data')
                    OR EXISTS(SELECT 1 FROM Checks WHERE Source = 'Sample data') OR EXISTS(SELECT 1 FROM Figures WHERE Source = 'Sample data')
                    OR ClockAhead <> '00:00:00'
                """);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropColumn(
                name: "ClockWasAhead",
                table: "Shops");

            migrationBuilder.DropColumn(
                name: "Countries",
                table: "Shops");

            migrationBuilder.DropColumn(
                name: "MayHoldSampleData",
                table: "Shops");

            migrationBuilder.DropColumn(
                name: "Language",
                table: "Shops");

            migrationBuilder.DropColumn(
                name: "Kept",
                table: "Readings");
        }
    }
}
