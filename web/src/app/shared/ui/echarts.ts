import { HeatmapChart, LineChart, ScatterChart } from 'echarts/charts';
import {
  AriaComponent,
  GridComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
  VisualMapComponent,
} from 'echarts/components';
import { LabelLayout } from 'echarts/features';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';

echarts.use([
  AriaComponent,
  SVGRenderer,
  GridComponent,
  HeatmapChart,
  LabelLayout,
  LineChart,
  MarkAreaComponent,
  MarkLineComponent,
  ScatterChart,
  TooltipComponent,
  VisualMapComponent,
]);

export default echarts;
