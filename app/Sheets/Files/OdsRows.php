<?php

namespace App\Sheets\Files;

use OpenSpout\Common\Manager\OptionsManagerInterface;
use OpenSpout\Reader\Common\Manager\RowManager;
use OpenSpout\Reader\Common\XMLProcessor;
use OpenSpout\Reader\ODS\Creator\InternalEntityFactory;
use OpenSpout\Reader\ODS\Helper\CellValueFormatter;
use OpenSpout\Reader\ODS\RowIterator;
use OpenSpout\Reader\Wrapper\XMLReader;

/**
 * Rows of an ODS whose cells are where the person sees them. openspout leaves out cells that a merged one covers
 * (OpenDocument 1.2 part 1, §9.1.5), so that those behind move up, and breaks off at a row without any cell.
 */
final class OdsRows extends RowIterator
{
    private const COVERED = 'table:covered-table-cell';

    public function __construct(
        XMLReader $xmlReader,
        OptionsManagerInterface $optionsManager,
        CellValueFormatter $cellValueFormatter,
        XMLProcessor $xmlProcessor,
        RowManager $rowManager,
        InternalEntityFactory $entityFactory,
    ) {
        parent::__construct(
            $xmlReader,
            $optionsManager,
            $cellValueFormatter,
            $xmlProcessor,
            $rowManager,
            $entityFactory,
        );
        $xmlProcessor->registerCallback(
            self::COVERED,
            XMLProcessor::NODE_TYPE_START,
            [$this, 'processCellStartingNode'],
        );
    }

    protected function processRowStartingNode($xmlReader)
    {
        $going = parent::processRowStartingNode($xmlReader);

        return $xmlReader->isEmptyElement ? $this->processRowEndingNode() : $going;
    }

    protected function processRowEndingNode()
    {
        $this->lastProcessedCell ??= $this->entityFactory->createCell('');

        return parent::processRowEndingNode();
    }
}
