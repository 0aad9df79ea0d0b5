using Microsoft.EntityFrameworkCore.Migrations;

#nullable disable

namespace TinRabbit.Server.Storage.Migrations
{
    /// <inheritdoc />
    public partial class RevisionsAndImports : Migration
    {
        /// <inheritdoc />
        protected override void Up(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.AddColumn<int>(
                name: "PicturesRevision",
                table: "Products",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Revision",
                table: "Products",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "Revision",
                table: "Platforms",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.AddColumn<int>(
                name: "NoteRevision",
                table: "Picks",
                type: "INTEGER",
                nullable: false,
                defaultValue: 0);

            migrationBuilder.CreateTable(
                name: "ImportChanges",
                columns: table => new
                {
                    ImportId = table.Column<int>(type: "INTEGER", nullable: false),
                    TermId = table.Column<int>(type: "INTEGER", nullable: false),
                    ReadingId = table.Column<int>(type: "INTEGER", nullable: true)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_ImportChanges", x => new { x.ImportId, x.TermId });
                });

            migrationBuilder.CreateTable(
                name: "Imports",
                columns: table => new
                {
                    Id = table.Column<int>(type: "INTEGER", nullable: false)
                        .Annotation("Sqlite:Autoincrement", true),
                    MarketId = table.Column<string>(type: "TEXT", nullable: false),
                    Source = table.Column<string>(type: "TEXT", nullable: false),
                    At = table.Column<DateTime>(type: "TEXT", nullable: false),
                    Done = table.Column<bool>(type: "INTEGER", nullable: false),
                    FirstTerm = table.Column<long>(type: "INTEGER", nullable: false),
                    FirstReading = table.Column<long>(type: "INTEGER", nullable: false),
                    Rows = table.Column<long>(type: "INTEGER", nullable: false)
                },
                constraints: table =>
                {
                    table.PrimaryKey("PK_Imports", x => x.Id);
                });

            // Of filters with the same name, which two requests at once could make, the last one saved stays.
            migrationBuilder.Sql("DELETE FROM Filters WHERE Id NOT IN (SELECT MAX(Id) FROM Filters GROUP BY Name)");

            migrationBuilder.CreateIndex(
                name: "IX_Filters_Name",
                table: "Filters",
                column: "Name",
                unique: true);
        }

        /// <inheritdoc />
        protected override void Down(MigrationBuilder migrationBuilder)
        {
            migrationBuilder.DropTable(
                name: "ImportChanges");

            migrationBuilder.DropTable(
                name: "Imports");

            migrationBuilder.DropIndex(
                name: "IX_Filters_Name",
                table: "Filters");

            migrationBuilder.DropColumn(
                name: "PicturesRevision",
                table: "Products");

            migrationBuilder.DropColumn(
                name: "Revision",
                table: "Products");

            migrationBuilder.DropColumn(
                name: "Revision",
                table: "Platforms");

            migrationBuilder.DropColumn(
                name: "NoteRevision",
                table: "Picks");
        }
    }
}
