<?php

declare(strict_types=1);

namespace Mensura\Exchange\Look;

use Mensura\Fault\UnusableInput;

/** Elements of an XML file one after the other. Nothing outside the file is opened; declarations of entities are refused. */
final class Xml
{
    /** @var list<string> local names of the elements that are open */
    public array $open = [];

    private function __construct(private readonly \XMLReader $xml)
    {
    }

    /**
     * @param ?XmlVisitor $visitor null to see only whether the file is whole
     *
     * @throws UnusableInput naming the line
     */
    public static function walk(string $path, string $name, ?XmlVisitor $visitor): void
    {
        $reader = new \XMLReader();
        $before = libxml_use_internal_errors(true);
        libxml_clear_errors();
        try {
            if (!@$reader->open($path, null, \LIBXML_NONET | \LIBXML_COMPACT)) {
                throw new UnusableInput($name, 'cannot be read');
            }
            (new self($reader))->run($name, $visitor);
        } finally {
            libxml_clear_errors();
            libxml_use_internal_errors($before);
        }
    }

    public function attribute(string $name): ?string
    {
        return $this->xml->getAttribute($name);
    }

    /** The local name of the element around the present one, or further out. */
    public function around(int $steps = 1): string
    {
        return $this->open[\count($this->open) - 1 - $steps] ?? '';
    }

    private function run(string $name, ?XmlVisitor $visitor): void
    {
        $text = '';
        while (@$this->xml->read()) {
            switch ($this->xml->nodeType) {
                case \XMLReader::DOC_TYPE:
                    throw new UnusableInput($name, 'holds a document type declaration, which is not accepted');
                case \XMLReader::ELEMENT:
                    $text = '';
                    $this->open[] = $this->xml->localName;
                    $isEmpty = $this->xml->isEmptyElement;
                    $visitor?->begin($this, $this->xml->localName);
                    if ($isEmpty) {
                        $visitor?->end($this, $this->open[\count($this->open) - 1], '');
                        array_pop($this->open);
                    }
                    break;
                case \XMLReader::TEXT:
                case \XMLReader::CDATA:
                    $text .= $this->xml->value;
                    break;
                case \XMLReader::END_ELEMENT:
                    $visitor?->end($this, $this->open[\count($this->open) - 1] ?? '', $text);
                    array_pop($this->open);
                    $text = '';
            }
        }
        $error = libxml_get_last_error();
        if (false !== $error && $error->level >= \LIBXML_ERR_ERROR || [] !== $this->open) {
            $why = false === $error ? 'it is cut off' : trim($error->message);
            throw new UnusableInput(false === $error ? $name : "$name:$error->line", 'is no complete XML: '.$why);
        }
    }

    /** @return list<float> numbers of a text apart by blanks */
    public static function numbers(string $text): array
    {
        $numbers = [];
        foreach (preg_split('/\s+/', trim($text)) ?: [] as $word) {
            if (!is_numeric($word)) {
                return [];
            }
            $numbers[] = (float) $word;
        }

        return $numbers;
    }
}
