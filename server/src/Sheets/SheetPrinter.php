<?php

declare(strict_types=1);

namespace Plinth\Server\Sheets;

use Plinth\Server\Source\Reading\PictureTool;

/** Makes of a sheet's SVG what printers and readers take; in the sandbox, with the shipped letters and no others. */
final readonly class SheetPrinter
{
    private const SECONDS = 20.0;
    /** Of a picture: as fine as is printed, but no more than so many pixels along its longer side. */
    private const DPI = 300.0;
    private const MOST_PX = 12_000;

    public function __construct(private PictureTool $tool, private string $projectDir)
    {
    }

    public function pdf(string $svg): string
    {
        return $this->made($svg, ['-f', 'pdf']);
    }

    /** @param float $longer mm, its longer side */
    public function png(string $svg, float $longer): string
    {
        $dpi = min(self::DPI, self::MOST_PX / ($longer / 25.4));

        return $this->made($svg, ['-f', 'png', '-d', (string) $dpi, '-p', (string) $dpi, '--background-color', 'white']);
    }

    /** @param list<string> $options */
    private function made(string $svg, array $options): string
    {
        $folder = sys_get_temp_dir().'/sheet-'.bin2hex(random_bytes(8));
        mkdir($folder, 0o700);
        try {
            file_put_contents("$folder/sheet.svg", $svg);
            $fonts = "$this->projectDir/core/fonts";
            $command = ['env', "FONTCONFIG_FILE=$fonts/fonts.conf", 'rsvg-convert', ...$options, '-o', "$folder/sheet", "$folder/sheet.svg"];
            $this->tool->run($command, self::SECONDS, [$fonts], $folder);

            return (string) file_get_contents("$folder/sheet");
        } finally {
            foreach (['sheet.svg', 'sheet'] as $file) {
                if (is_file("$folder/$file")) {
                    unlink("$folder/$file");
                }
            }
            rmdir($folder);
        }
    }
}
